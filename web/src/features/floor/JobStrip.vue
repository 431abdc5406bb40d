<script setup lang="ts">
import { computed } from 'vue'

import type { FloorHole, FloorStrip } from '@/api/generated'
import LimitRing from '@/shared/charts/LimitRing.vue'
import StateGate from '@/shared/charts/StateGate.vue'
import { useNarrow } from '@/shared/state/useNarrow'
import PhraseText from '@/shared/ui/PhraseText.vue'

import FileJob from './FileJob.vue'
import FloorPoints from './FloorPoints.vue'
import StripRings from './StripRings.vue'

/** One job: its block as rings, what each open hole needs, and where on its route it stands. */
const props = defineProps<{ strip: FloorStrip }>()
const emit = defineEmits<{ filed: [] }>()

const isNarrow = useNarrow()
const PITCH = 126
const GAP = 22
const TOP = 8

/** Head by head, as they stand on the block: in a V the numbers need not follow each other. */
const places = computed(() => {
  const holes = new Map(props.strip.holes.map((hole) => [hole.number, hole]))
  let x = 0
  return props.strip.heads.flatMap((head, index) => {
    if (index > 0) x += GAP
    return head.flatMap((number) => {
      const hole = holes.get(number)
      if (!hole) return []
      x += PITCH
      return [{ hole, x: x - PITCH / 2 }]
    })
  })
})
const width = computed(() => (places.value.at(-1)?.x ?? 0) + PITCH / 2)
const dueText = (day: string) =>
  new Date(`${day}T12:00`).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
const day = computed(() => props.strip.points.find((one) => one.kind === 'late' || one.kind === 'due soon'))
const next = computed(() => props.strip.route.find((one) => one.is_next))
const again = computed(() => props.strip.route.filter((one) => one.state === 'read again'))
const blockAt = (hole: number | null) => ({
  name: 'home',
  params: { job: props.strip.job.job_id, ...(hole === null ? {} : { hole: String(hole) }) },
})
const marksOf = (hole: FloorHole) =>
  hole.marks.map((mark) => ({ hour: mark.hour, value: mark.mean_m, state: mark.state }))
</script>

<template>
  <article class="grid grid-cols-1 gap-x-8 gap-y-2 border-t border-rule py-4 md:grid-cols-[16rem_1fr]">
    <div>
      <h2 class="text-lg leading-tight">
        <RouterLink :to="blockAt(null)" class="link">{{ strip.job.name }}</RouterLink>
      </h2>
      <p class="text-sm text-ink-soft">{{ strip.engine }} · job {{ strip.job.number }}</p>
      <p class="text-sm text-ink-soft">{{ strip.job.customer }}</p>
      <p v-if="strip.job.complaint" class="mt-2 text-sm">{{ strip.job.complaint }}</p>
      <p v-if="next" class="mt-2 text-sm">
        <span class="mr-1 text-ink-soft">next</span>
        <RouterLink :to="{ name: 'route', params: { job: strip.job.job_id } }" class="link font-bold">
          {{ next.title }}
        </RouterLink>
        <span v-if="!next.words.startsWith('waits')" class="text-ink-soft"> · {{ next.words }}</span>
      </p>
      <p v-else class="mt-2 text-sm font-bold">every operation done</p>
      <p v-if="strip.promised" class="mt-2 text-sm">
        <span class="mr-1 text-ink-soft">promised for</span><b>{{ dueText(strip.promised) }}</b>
        <span v-if="day" :class="day.kind === 'late' ? 'font-bold text-out' : 'text-unsure'">
          · {{ day.words }}</span
        >
      </p>
      <p v-for="one in again" :key="one.operation" class="flex items-center gap-2 text-sm">
        <StateGate state="read again" class="shrink-0" />{{ one.title }}: read again
      </p>
      <FloorPoints :strip="strip" />
      <FileJob :strip="strip" @filed="emit('filed')" />
    </div>
    <div class="min-w-0">
      <StripRings v-if="isNarrow" :strip="strip" :numbers="places.map((place) => place.hole.number)" />
      <RouterLink v-else :to="blockAt(null)" class="block hover:bg-sheet">
        <svg
          :viewBox="`0 0 ${width} 148`"
          class="max-h-44 w-full"
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
            <StateGate :state="place.hole.state" :x="place.x - 15" :y="TOP + 122" />
          </g>
        </svg>
      </RouterLink>
      <ul v-if="strip.needs.length" class="mt-2">
        <template v-for="due in strip.needs" :key="due.operation">
          <li v-for="need in due.holes" :key="need.hole">
            <RouterLink
              :to="blockAt(need.hole)"
              class="flex items-center gap-x-3 border-t border-rule py-1.5 hover:bg-sheet max-lg:flex-wrap"
            >
              <StateGate :state="need.state" class="shrink-0" />
              <b class="w-16 shrink-0">hole {{ need.hole }}</b>
              <PhraseText :phrase="need.sentence" />
              <span class="ml-auto shrink-0 text-sm text-ink-soft">{{ due.operation }}</span>
            </RouterLink>
          </li>
        </template>
      </ul>
      <p v-else-if="strip.holes.every((hole) => hole.state === 'in')" class="mt-2 text-in">
        Every hole is in.
      </p>
    </div>
  </article>
</template>
