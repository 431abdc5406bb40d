<script setup lang="ts">
import { computed } from 'vue'

import type { DeckingView, HoleConversionView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { unit } from '@/shared/state/preferences'
import { usePhone } from '@/shared/state/useNarrow'

import { labelsOf, type PartLabel } from './labels'

/** A section through one hole, not to scale: what is proud, off line or relieved is drawn large enough to be seen. */
const props = defineProps<{ one: HoleConversionView; decking: DeckingView | null }>()
const phone = usePhone()
const DECK = 112
const labels = computed(() => labelsOf(props.one, props.decking, unit.value))
const has = (part: PartLabel['part']) => labels.value.some((label) => label.part === part)
const proud = computed(() => (has('proud') ? 16 : 0))
/** How far the lower register is drawn to one side: a hint of the offset, at most a few lines wide. */
const shift = computed(() => {
  const rule = props.one.register_line?.rule
  return rule ? Math.min(9, (rule.value_m / 50e-6) * 7) : 0
})
const seals = computed(() => props.one.seals.map((seal, at) => ({ seal, y: 404 + at * 20 })))
const relieved = computed(() => ({
  left: (props.one.relief?.away?.deep_m ?? 0) > 0,
  right: (props.one.relief?.towards?.deep_m ?? 0) > 0,
}))
/** Where on the section each part is pointed at. */
const AT: Record<PartLabel['part'], [number, number]> = {
  ring: [386, 78],
  proud: [408, DECK - 8],
  insert: [436, DECK + 16],
  register: [424, 384],
  seals: [416, 408],
  relief: [386, 462],
}
const rows = computed(() => {
  const seen: Partial<Record<PartLabel['part'], number>> = {}
  return labels.value.map((label, at) => {
    const nth = (seen[label.part] = (seen[label.part] ?? -1) + 1)
    const [x, y] = AT[label.part]
    return { label, x, y: y + nth * 20, top: 40 + at * (480 / Math.max(5, labels.value.length)) }
  })
})
const wall = (mirrored: boolean) => (mirrored ? 'translate(580 0) scale(-1 1)' : undefined)
</script>

<template>
  <div>
    <svg
      v-legible
      :viewBox="phone ? '56 30 476 512' : '0 0 900 530'"
      class="block w-full"
      role="img"
      :aria-label="`Section of hole ${one.hole}`"
    >
      <g v-for="mirrored in [true, false]" :key="String(mirrored)" :transform="wall(mirrored)">
        <!-- The block: deck, jacket, upper and lower register. -->
        <path
          :d="`M520 ${DECK}H424V150H${has('insert') ? 448 : 424}V158H424V196H470V372H424V434H470V500H520Z`"
          class="fill-sheet stroke-ink-soft"
          stroke-width="1.4"
        />
        <path d="M470 196V372H440V196Z" class="fill-part-wash" />
        <rect
          v-if="has('insert')"
          x="424"
          :y="DECK"
          width="24"
          height="38"
          class="fill-plate stroke-ink"
          stroke-width="1.2"
        />
        <!-- The liner, its foot relieved where the rod comes near. -->
        <path
          :d="`M386 ${DECK - proud}H424V434H420V470H${(mirrored ? relieved.left : relieved.right) ? '404L386 452' : '386'}Z`"
          class="fill-paper stroke-ink"
          stroke-width="1.6"
        />
        <g v-for="row in seals" :key="row.seal.name">
          <circle
            cx="418"
            :cy="row.y"
            r="6.5"
            :class="row.seal.against.length ? 'fill-unsure' : 'fill-ink'"
          />
        </g>
        <rect v-if="has('ring')" x="390" y="70" width="26" height="10" class="fill-act" rx="5" />
      </g>
      <!-- The head, new deck, the middle lines of both registers. -->
      <path v-if="has('ring')" d="M60 66H520V44H60Z" class="fill-sheet stroke-rule" />
      <text
        v-if="has('ring')"
        x="290"
        y="60"
        text-anchor="middle"
        :font-size="phone ? 17 : 14"
        class="fill-ink-soft"
      >
        head
      </text>
      <path
        v-if="decking && !decking.decked_at"
        :d="`M56 ${DECK + 9}H528`"
        class="stroke-out"
        stroke-width="1.8"
        stroke-dasharray="7 5"
      />
      <text
        v-if="decking && !decking.decked_at"
        x="62"
        :y="DECK + 26"
        :font-size="phone ? 17 : 13"
        class="fill-out"
      >
        new deck
      </text>
      <path d="M290 90V300" class="stroke-part" stroke-width="1.3" stroke-dasharray="12 4 2 4" />
      <template v-if="one.register_line?.rule">
        <path
          :d="`M${290 + shift} 330V500`"
          class="stroke-act"
          stroke-width="1.6"
          stroke-dasharray="12 4 2 4"
        />
        <text x="296" y="196" :font-size="phone ? 17 : 13" class="fill-part">upper register</text>
        <text x="284" y="352" text-anchor="end" :font-size="phone ? 17 : 13" class="fill-act">
          lower register
        </text>
      </template>
      <g v-if="one.relief?.towards" class="fill-none stroke-ink-soft" stroke-width="1.6">
        <path d="M262 300 322 500M288 300 356 486" />
        <circle cx="352" cy="512" r="30" />
        <text
          x="252"
          y="430"
          text-anchor="end"
          :font-size="phone ? 17 : 13"
          class="fill-ink-soft"
          stroke="none"
        >
          rod
        </text>
      </g>
      <!-- What is known of each part, at its height. -->
      <g v-for="(row, at) in rows" :key="row.label.part + row.label.what">
        <template v-if="phone">
          <circle :cx="row.x" :cy="row.y" r="11" class="fill-ink" />
          <text :x="row.x" :y="row.y + 6" text-anchor="middle" font-size="17" class="fill-paper font-bold">
            {{ at + 1 }}
          </text>
        </template>
        <template v-else>
          <path
            :d="`M${row.x} ${row.y}L556 ${row.top + 4}H566`"
            class="fill-none stroke-ink-soft"
            stroke-width="1"
          />
          <circle :cx="row.x" :cy="row.y" r="2.6" class="fill-ink" />
          <text x="572" :y="row.top - 4" font-size="14" class="fill-ink-soft">{{ row.label.what }}</text>
          <text x="572" :y="row.top + 18" font-size="20" class="num fill-ink font-bold">
            {{ row.label.value }}
          </text>
          <text x="572" :y="row.top + 35" :font-size="phone ? 17 : 13" class="fill-ink-soft">
            {{ row.label.note }}
          </text>
          <StateGate v-if="row.label.state" :state="row.label.state" :x="866" :y="row.top + 2" />
        </template>
      </g>
    </svg>
    <ol v-if="phone" class="mt-1" aria-label="What is known of each part">
      <li
        v-for="(row, at) in rows"
        :key="row.label.part + row.label.what"
        class="grid grid-cols-[1.6rem_minmax(0,1fr)_auto] items-baseline gap-x-2 border-b border-rule py-1"
      >
        <b class="num">{{ at + 1 }}</b>
        <span
          >{{ row.label.what }} <span class="text-sm text-ink-soft">{{ row.label.note }}</span></span
        >
        <span class="flex items-center gap-2"
          ><b class="num">{{ row.label.value }}</b
          ><StateGate v-if="row.label.state" :state="row.label.state"
        /></span>
      </li>
    </ol>
  </div>
</template>
