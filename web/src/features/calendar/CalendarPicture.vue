<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { CalendarView, Machine } from '@/api/generated'

import { axisOf, dayOf } from './axis'
import JobRule from './JobRule.vue'
import type { LanePiece } from './lanes'
import LaneRow from './LaneRow.vue'
import { dayWords, initials, percent } from './words'

/** All jobs on one axis of days: a rule for each job, or a lane for each machine or person. */
const props = defineProps<{
  view: CalendarView
  by: 'job' | 'machine' | 'person'
  weeksOn: number
  chosen: string
}>()
const emit = defineEmits<{ choose: [job: string] }>()
const box = ref<HTMLElement | null>(null)
const { width: seen } = useElementSize(box)
const width = computed(() => Math.max(seen.value || 1240, 980))
const LEFT = 172
const RIGHT = 118
const TOP = 46
const ROW = computed(() => (props.by === 'job' ? 60 : 44))
const axis = computed(() => axisOf(props.view, LEFT, width.value - RIGHT, props.weeksOn))
const letters = computed(() => initials(props.view.people))
const rows = computed(() => (props.by === 'job' ? props.view.jobs.length : lanes.value.length))
const height = computed(() => TOP + rows.value * ROW.value + 12)
const nowX = computed(() => axis.value.x(props.view.at))
const mondays = computed(() => axis.value.days.filter((_, at) => at % 7 === 0))
const lanes = computed(() => {
  const bars = props.view.jobs.flatMap((job) => job.bars.map((bar) => ({ job, bar })))
  const names: string[] = props.by === 'machine' ? Object.keys(props.view.machines) : props.view.people
  return names.map((name) => ({
    name,
    about:
      props.by === 'machine' && (props.view.machines[name as Machine] ?? 1) > 1
        ? `${props.view.machines[name as Machine]} of them`
        : '',
    pieces: bars
      .filter(({ bar }) => (props.by === 'machine' ? bar.machine === name : bar.person === name))
      .filter(({ bar }) => axis.value.holds(bar.start))
      .map(({ job, bar }): LanePiece => ({
        x: axis.value.x(bar.start),
        width: Math.max(axis.value.x(bar.end) - axis.value.x(bar.start), 3),
        job: job.name,
        what: bar.short,
        id: job.job_id,
      })),
  }))
})
</script>

<template>
  <div>
    <div
      ref="box"
      class="relative overflow-x-auto"
      tabindex="0"
      role="region"
      aria-label="Days from left to right"
    >
      <svg
        v-legible
        :width="width"
        :height="height"
        :viewBox="`0 0 ${width} ${height}`"
        role="group"
        :aria-label="`Calendar ${by === 'job' ? 'by job' : `by ${by}`}; every piece of work stands in words below`"
      >
        <rect
          v-for="day in axis.days.filter((one) => !one.open)"
          :key="day.day"
          :x="day.x"
          y="20"
          :width="day.width"
          :height="height - 20"
          class="fill-iron"
        />
        <text
          v-for="day in mondays"
          :key="`m${day.day}`"
          :x="day.x + 2"
          y="12"
          class="fill-ink-soft text-[13px]"
        >
          {{ dayWords(day.day) }}
        </text>
        <g v-for="day in axis.days.filter((one) => one.open)" :key="`d${day.day}`">
          <text
            :x="day.x + day.width / 2"
            y="32"
            text-anchor="middle"
            class="num text-[15px]"
            :class="day.day === dayOf(view.at) ? 'fill-act font-bold' : 'fill-ink'"
          >
            {{ Number(day.day.slice(8)) }}
          </text>
          <line :x1="day.x" :x2="day.x" y1="36" y2="44" class="stroke-ink-soft" />
        </g>
        <line :x1="LEFT" :x2="width - RIGHT" y1="36" y2="36" class="stroke-ink-soft" />
        <line
          v-if="axis.holds(view.at)"
          :x1="nowX"
          :x2="nowX"
          y1="40"
          :y2="height"
          class="stroke-act"
          stroke-width="2"
        />
        <path v-if="axis.holds(view.at)" :d="`M${nowX - 8},36h16l-8,11z`" class="fill-act" />
        <template v-if="by === 'job'">
          <g v-for="(job, at) in view.jobs" :key="job.job_id">
            <rect
              v-if="job.job_id === chosen"
              x="0"
              :y="TOP + at * ROW"
              :width="width"
              :height="ROW"
              class="fill-part-wash"
              opacity="0.6"
            />
            <a href="#job-details" @click.prevent="emit('choose', job.job_id)">
              <text x="0" :y="TOP + at * ROW + 36" class="fill-ink text-[15px] font-bold">
                {{ job.name.length > 21 ? `${job.name.slice(0, 20)}…` : job.name }}
              </text>
              <text x="0" :y="TOP + at * ROW + 52" class="fill-ink-soft text-[13px]">{{ job.number }}</text>
            </a>
            <JobRule :job="job" :axis="axis" :y="TOP + at * ROW + 30" :now="view.at" :letters="letters" />
            <g :class="job.holds === false ? 'text-out' : 'text-ink'">
              <text
                :x="width"
                :y="TOP + at * ROW + 38"
                text-anchor="end"
                class="text-[15px] font-bold"
                fill="currentColor"
              >
                {{ job.promised ? dayWords(job.promised) : dayWords(job.offered) }}
              </text>
              <text
                :x="width"
                :y="TOP + at * ROW + 54"
                text-anchor="end"
                class="text-[13px]"
                fill="currentColor"
              >
                {{ job.promised ? `kept ${percent(job.kept ?? 0)}` : 'nine in ten' }}
              </text>
            </g>
          </g>
        </template>
        <LaneRow
          v-for="(lane, at) in by === 'job' ? [] : lanes"
          :key="lane.name"
          :name="lane.name"
          :about="lane.about"
          :pieces="lane.pieces"
          :y="TOP + at * ROW"
          :left="LEFT"
          :right="width - RIGHT"
          @choose="(job) => emit('choose', job)"
        />
        <text :x="width" y="32" text-anchor="end" class="fill-ink-soft text-[13px]">
          {{ by === 'job' ? 'promised' : '' }}
        </text>
      </svg>
    </div>
  </div>
</template>
