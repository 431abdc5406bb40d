<script setup lang="ts">
import { computed } from 'vue'

import type { FloorHole, FloorStrip, State } from '@/api/generated'
import LimitRing from '@/shared/charts/LimitRing.vue'
import StateGate from '@/shared/charts/StateGate.vue'

/** One job: its block as rings, what is open, and the stage it stands at. */
const props = defineProps<{ strip: FloorStrip }>()

const STATES: State[] = ['out', 'cannot tell', 'not measured', 'in']
const PITCH = 126
const TOP = 8

const headStarts = computed(() => new Set(props.strip.heads.map((head) => head[0])))
const places = computed(() => {
  let x = 0
  return props.strip.holes.map((hole) => {
    if (headStarts.value.has(hole.number) && x > 0) x += 22
    const place = { hole, x: x + PITCH / 2 }
    x += PITCH
    return place
  })
})
const width = computed(() => (places.value.at(-1)?.x ?? 0) + PITCH / 2)
const counts = computed(() =>
  STATES.map((state) => ({ state, holes: props.strip.holes.filter((hole) => hole.state === state) })).filter(
    (one) => one.holes.length > 0,
  ),
)
const stage = computed(() => props.strip.stages.find((one) => !one.done))
const open = computed(() => ({
  name: 'block',
  params: { job: props.strip.job.job_id, lens: 'protrusion', hole: firstOpen.value },
}))
const firstOpen = computed(() => {
  for (const state of STATES) {
    const hole = props.strip.holes.find((one) => one.state === state)
    if (hole && state !== 'in') return String(hole.number)
  }
  return ''
})
const marksOf = (hole: FloorHole) =>
  hole.marks.map((mark) => ({ hour: mark.hour, value: mark.mean_m, state: mark.state }))
</script>

<template>
  <RouterLink
    :to="open"
    class="grid grid-cols-1 items-center gap-x-6 gap-y-2 border-t border-rule py-4 hover:bg-sheet md:grid-cols-[15rem_1fr_13rem]"
  >
    <div>
      <h2 class="text-lg leading-tight">{{ strip.job.name }}</h2>
      <p class="text-sm text-ink-soft">{{ strip.engine }} · job {{ strip.job.number }}</p>
      <p class="text-sm text-ink-soft">{{ strip.job.customer }}</p>
      <p v-if="strip.job.complaint" class="mt-1 text-sm">{{ strip.job.complaint }}</p>
    </div>
    <svg
      :viewBox="`0 0 ${width} 148`"
      class="max-h-40 w-full"
      role="img"
      :aria-label="`Holes of ${strip.job.name}: ${strip.holes.map((h) => `${h.number} ${h.state}`).join(', ')}`"
    >
      <g v-for="place in places" :key="place.hole.number">
        <g :transform="`translate(${place.x} ${TOP + 56})`">
          <LimitRing
            :number="place.hole.number"
            :least="place.hole.least_m"
            :greatest="place.hole.greatest_m"
            :marks="marksOf(place.hole)"
          />
        </g>
        <StateGate :state="place.hole.state" :x="place.x - 13" :y="TOP + 122" />
      </g>
    </svg>
    <div class="text-sm">
      <p v-for="one in counts" :key="one.state" class="flex items-center gap-2">
        <StateGate :state="one.state" />
        <span
          ><b>{{ one.state }}</b> {{ one.holes.map((hole) => hole.number).join(', ') }}</span
        >
      </p>
      <p v-if="stage" class="mt-2">
        <span class="text-ink-soft">next</span> <b>{{ stage.name }}</b>
        <span v-if="stage.waits_for" class="text-unsure"> · {{ stage.waits_for }}</span>
      </p>
      <p v-else class="mt-2 font-bold">every stage done</p>
    </div>
  </RouterLink>
</template>
