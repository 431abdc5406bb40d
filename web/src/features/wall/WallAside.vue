<script setup lang="ts">
import { computed } from 'vue'

import type { WallMarkView, WallView } from '@/api/generated'
import { clockText, hourOfAngle } from '@/shared/format/clock'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { NUMBER_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'

import MarkList from './MarkList.vue'
import type { Shown } from './shown'

import WallCircles from './WallCircles.vue'

/** The figures that count, the levels as circles, what was found, and what these readings cannot see. */
const props = defineProps<{ wall: WallView; shown: Shown; depth: number | null }>()
const emit = defineEmits<{ level: [depth: number]; mark: [mark: WallMarkView] }>()

const load = computed(() => {
  const at = /^load-(\d+)$/.exec(props.shown.key)
  return at ? (props.wall.loads[Number(at[1])] ?? null) : (props.wall.loads.at(-1) ?? null)
})
const change = computed(() => {
  const at = /^change-(\d+)$/.exec(props.shown.key)
  return at ? (props.wall.changes[Number(at[1])] ?? null) : null
})
const depthWords = (depth: number) =>
  `${lengthText(depth, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 1 : 0 })} ${SIZE_WITH[unit.value]} deep`
const deepest = computed(() => props.wall.wear.deepest)
const score = computed(() => {
  const deep = props.wall.marks.filter((one) => one.finding.length_m !== null)
  return deep.reduce<WallMarkView | null>(
    (worst, one) => ((one.finding.length_m ?? 0) > (worst?.finding.length_m ?? 0) ? one : worst),
    null,
  )
})
const worst = (kind: string) => {
  const all = (load.value?.circles ?? []).flatMap((one) => one.told).filter((one) => one.kind === kind)
  return all.reduce<(typeof all)[number] | null>(
    (top, one) => (one.value_m > (top?.value_m ?? -1) ? one : top),
    null,
  )
}
const taper = computed(() =>
  (load.value?.told ?? [])
    .filter((one) => one.kind === 'taper')
    .reduce<{ value_m: number; expanded_m: number } | null>(
      (top, one) => (one.value_m > (top?.value_m ?? -1) ? one : top),
      null,
    ),
)
const amount = (one: { value_m: number; expanded_m: number } | null | undefined) =>
  one ? `${lengthText(one.value_m, unit.value)} ±${uncertaintyText(one.expanded_m, unit.value)}` : '–'
const starts = computed(() => props.wall.wear.starts.filter((one) => one.in_travel !== false))
</script>

<template>
  <div class="grid content-start gap-3">
    <div v-if="shown.kind === 'wear' && deepest" class="grid grid-cols-2 gap-3">
      <p>
        <b class="num text-4xl">{{ lengthText(deepest.value_m, unit) }}</b>
        <span class="num text-ink-soft"> ±{{ uncertaintyText(deepest.expanded_m, unit) }}</span>
        <span class="block text-sm text-ink-soft"
          >{{ unit }} a side, {{ clockText(hourOfAngle(deepest.angle_deg)) }},
          {{ depthWords(deepest.depth_m) }}</span
        >
      </p>
      <p v-if="score">
        <b class="num text-4xl">{{ lengthText(score.finding.length_m ?? 0, unit, { signed: true }) }}</b>
        <span class="num text-ink-soft"> ±{{ uncertaintyText(score.depth_expanded_m ?? 0, unit) }}</span>
        <span class="block text-sm text-ink-soft">deeper in {{ score.finding.word }} {{ score.letter }}</span>
      </p>
    </div>
    <div v-else-if="change" class="grid grid-cols-2 gap-3">
      <p>
        <b class="num text-4xl">{{ lengthText(change.greatest_m ?? 0, unit, { signed: true }) }}</b>
        <span class="block text-sm text-ink-soft">{{ unit }} on the diameter, the greatest change</span>
      </p>
      <p class="text-sm text-ink-soft">{{ change.reason }}</p>
    </div>
    <p v-else-if="shown.kind === 'radius'" class="text-sm text-ink-soft">
      A scan sees every lobe that it has points for. It stands about its own spindle: it does not say where
      the bore lies in the block, and nothing between its levels.
    </p>
    <div v-else-if="load">
      <p class="text-lg font-bold">
        {{ load.why_not ? 'Not judged' : 'Judged' }}:
        <span v-if="load.state" :class="NUMBER_TONE[load.state]">{{ load.state }}</span>
      </p>
      <p class="text-sm text-ink-soft">{{ load.name }}. {{ load.why_not || load.reason }}</p>
    </div>
    <p class="border-b border-rule pb-2 text-sm">{{ wall.judged }}</p>
    <p v-for="line in load?.differs ?? []" :key="line" class="caution">{{ line }}</p>
    <WallCircles :shown="shown" :depth="depth" @level="emit('level', $event)" />
    <dl
      v-if="shown.kind !== 'change' && load"
      class="grid grid-cols-[1fr_auto] gap-y-1 border-t border-rule pt-2"
    >
      <dt class="col-span-2 font-bold">
        Starts from, on the diameter<span v-if="wall.wear.aim" class="font-normal text-ink-soft"
          >; to {{ wall.wear.aim }}</span
        >
      </dt>
      <template v-for="one in starts" :key="one.name">
        <dt class="text-sm">{{ one.name }}, {{ depthWords(one.depth_m) }}</dt>
        <dd class="num text-right font-bold">
          {{ lengthText(one.size_m, SIZE_WITH[unit])
          }}<span v-if="one.to_go_m !== null" class="font-normal text-ink-soft">
            · {{ lengthText(one.to_go_m, unit) }} to go</span
          >
        </dd>
      </template>
      <template v-if="wall.wear.cone">
        <dt>cone, top less end of travel</dt>
        <dd class="num font-bold">{{ amount(wall.wear.cone) }}</dd>
      </template>
      <template v-if="wall.wear.ridge">
        <dt>ridge at the top of travel</dt>
        <dd class="num font-bold">{{ amount(wall.wear.ridge) }}</dd>
      </template>
      <dt>out of round, worst level</dt>
      <dd class="num font-bold">{{ amount(worst('out of round')) }}</dd>
      <dt>taper, worst axis</dt>
      <dd class="num font-bold">{{ amount(taper) }}</dd>
      <dt class="col-span-2 text-xs text-ink-soft">
        {{ unit }} on the diameter, a side is half of it; sizes in {{ SIZE_WITH[unit]
        }}<template v-if="starts[0]"> ±{{ uncertaintyText(starts[0].expanded_m, SIZE_WITH[unit]) }}</template>
      </dt>
    </dl>
    <MarkList
      v-if="wall.marks.length"
      class="border-t border-rule pt-2"
      :marks="wall.marks"
      @notes="emit('mark', $event)"
    />
    <p v-if="wall.stripes" class="caution">{{ wall.stripes }}</p>
    <section class="border-t border-rule pt-2" aria-label="What these readings cannot see">
      <h2 class="font-bold">What these readings cannot see</h2>
      <p class="text-sm text-ink-soft">{{ wall.blind.join(' ') }}</p>
      <p v-for="line in wall.stale" :key="line" class="caution mt-1">{{ line }}</p>
    </section>
  </div>
</template>
