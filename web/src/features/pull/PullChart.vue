<script setup lang="ts">
import { ticks } from 'd3-array'
import { computed } from 'vue'

import type { PullPageView, PullView } from '@/api/generated'

/** Force against what is left to go: expected as a band, read as dots, now as a line; what was felt along the foot. */
const props = defineProps<{ page: PullPageView; pull: PullView }>()
const LEFT = 44
const RIGHT = 470
const TOP = 26
const BASE = 268
const length = computed(() => props.page.length_m ?? props.pull.from_m)
const going = computed(() => props.page.going_in)
const read = computed(() => props.pull.marks.filter((one) => one.force_n !== null))
const most = computed(
  () => Math.max(500, ...(going.value?.high_n ?? []), ...read.value.map((one) => one.force_n ?? 0)) * 1.08,
)
const x = (toGo: number) => RIGHT - (toGo / length.value) * (RIGHT - LEFT)
const y = (force: number) => BASE - (force / most.value) * (BASE - TOP)
const line = (forces: number[]) =>
  (going.value?.depths_m ?? [])
    .map((depth, at) => `${x(length.value - depth).toFixed(1)} ${y(forces[at] ?? 0).toFixed(1)}`)
    .join('L')
const band = computed(() => {
  const way = going.value
  if (!way) return ''
  const high = way.depths_m
    .map((depth, at) => `${x(length.value - depth)} ${y(way.high_n[at] ?? 0)}`)
    .reverse()
  return `M${line(way.low_n)}L${high.join('L')}Z`
})
const felt = computed(() => {
  const kinds = ['smooth', 'pops', 'twists', 'stopped half-way', 'goes on']
  return props.pull.marks.filter((one) => kinds.includes(one.kind))
})
const TONE: Record<string, string> = {
  smooth: 'stroke-in',
  'goes on': 'stroke-in',
  pops: 'stroke-unsure',
  twists: 'stroke-unsure',
  'stopped half-way': 'stroke-out',
}
/** Each feel lasts until the next, the last one until now. */
const spans = computed(() =>
  felt.value.map((one, at) => ({
    ...one,
    from: x(one.to_go_m),
    to: x(felt.value[at + 1]?.to_go_m ?? props.pull.to_go_m),
  })),
)
/** What went wrong at one place is said once. */
const named = computed(() => {
  const odd = felt.value.filter((one) => one.kind !== 'smooth' && one.kind !== 'goes on')
  return [...new Set(odd.map((one) => one.to_go_m))].map((at) => ({
    at,
    kinds: odd.filter((one) => one.to_go_m === at).map((one) => one.kind),
  }))
})
const isEarly = computed(() => x(props.pull.to_go_m) < 110)
const marks = computed(() => ticks(0, length.value * 1000, 6))
const forces = computed(() => ticks(0, most.value / 1000, 4))
</script>

<template>
  <svg
    v-legible
    viewBox="0 0 480 330"
    class="block w-full"
    role="img"
    aria-label="Force against what is left to go"
  >
    <path :d="band" class="fill-part" opacity="0.16" />
    <path
      v-if="going"
      :d="`M${line(going.middle_n)}`"
      class="fill-none stroke-part"
      stroke-width="2"
      stroke-dasharray="6 5"
    />
    <path :d="`M${LEFT} ${BASE}H${RIGHT}`" class="stroke-ink" stroke-width="1.4" />
    <g v-for="force in forces" :key="force">
      <path :d="`M${LEFT - 5} ${y(force * 1000)}h5`" class="stroke-ink" />
      <text :x="LEFT - 8" :y="y(force * 1000) + 5" text-anchor="end" font-size="13" class="num fill-ink">
        {{ force }}
      </text>
    </g>
    <text x="2" :y="TOP - 8" font-size="13" class="fill-ink-soft">kN</text>
    <g v-for="mark in marks" :key="mark">
      <path :d="`M${x(mark / 1000)} ${BASE}v5`" class="stroke-ink" />
      <text :x="x(mark / 1000)" :y="BASE + 20" text-anchor="middle" font-size="13" class="num fill-ink">
        {{ mark }}
      </text>
    </g>
    <text v-if="!going" x="250" y="140" text-anchor="middle" font-size="14" class="fill-ink-soft">
      what to expect is not known: the walls are not on the card
    </text>
    <circle
      v-for="one in read"
      :key="one.pull_mark_id"
      :cx="x(one.to_go_m)"
      :cy="y(one.force_n ?? 0)"
      r="5"
      class="fill-ink"
    />
    <path :d="`M${x(pull.to_go_m)} ${TOP - 12}V${BASE + 42}`" class="stroke-ink" stroke-width="2.5" />
    <text
      :x="x(pull.to_go_m) + (isEarly ? 6 : -6)"
      :y="TOP - 4"
      :text-anchor="isEarly ? 'start' : 'end'"
      font-size="14"
      class="fill-ink font-bold"
    >
      now
    </text>
    <template v-if="pull.stiffens_at_m !== null">
      <path :d="`M${x(pull.stiffens_at_m)} ${TOP}V${BASE}`" class="stroke-ink-soft" stroke-width="1.5" />
      <text :x="x(pull.stiffens_at_m) + 4" :y="TOP + 8" font-size="13" class="fill-ink">stiffens</text>
    </template>
    <text x="2" :y="BASE + 40" font-size="13" class="fill-ink-soft">felt</text>
    <g v-for="one in spans" :key="one.pull_mark_id">
      <path
        :d="`M${one.from} ${BASE + 36}H${Math.max(one.to, one.from + 4)}`"
        :class="TONE[one.kind]"
        stroke-width="5"
      />
      <path
        v-if="one.kind === 'pops'"
        :d="`M${one.from - 8} ${BASE + 36}l4 -9 4 15 4 -15 4 9`"
        class="fill-none stroke-unsure"
        stroke-width="2.5"
      />
    </g>
    <text
      v-for="one in named"
      :key="one.at"
      :x="Math.min(x(one.at), 330)"
      :y="BASE + 58"
      font-size="12"
      class="fill-unsure"
    >
      {{ one.kinds.join(', ') }} at {{ Math.round(one.at * 1000) }}
    </text>
  </svg>
</template>
