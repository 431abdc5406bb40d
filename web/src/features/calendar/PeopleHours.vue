<script setup lang="ts">
import { computed } from 'vue'

import type { CalendarView } from '@/api/generated'

import { firstDay } from './axis'
import { dayWords, hoursByWeek, initials } from './words'

/** Hours laid out for each person in the next two weeks, beside the hours the shop is open. */
const props = defineProps<{ view: CalendarView }>()
/** From the week in which the first piece of work stands. */
const first = computed(() => {
  const starts = props.view.jobs.flatMap((job) => job.bars.map((bar) => bar.start)).sort()
  return starts[0] ?? props.view.at
})
const mondays = computed(() => [1, 2, 3].map((week) => firstDay(first.value, week)))
const weeks = computed(() => mondays.value.slice(0, 2))
const rows = computed(() =>
  props.view.people.map((name) => ({
    name,
    letter: initials(props.view.people).get(name),
    hours: hoursByWeek(props.view.jobs, name, mondays.value).slice(0, 2),
  })),
)
const share = (hours: number) => Math.min(hours / Math.max(props.view.week_h, 1), 1)
const file = (name: string) => `/api/calendar.ics?person=${encodeURIComponent(name)}`
</script>

<template>
  <section aria-labelledby="people-hours">
    <h2 id="people-hours" class="text-lg">
      People <span class="text-sm font-normal text-ink-soft">hours laid out of {{ view.week_h }} a week</span>
    </h2>
    <table class="text-sm">
      <thead class="sr-only">
        <tr>
          <th>Person</th>
          <th v-for="week in weeks" :key="week">week of {{ dayWords(week) }}</th>
          <th>File</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in rows" :key="one.name">
          <td class="py-1 pr-3 whitespace-nowrap">
            <b class="text-part">{{ one.letter }}</b> {{ one.name }}
          </td>
          <td v-for="(hours, at) in one.hours" :key="at" class="pr-4 whitespace-nowrap">
            <svg width="86" height="14" class="inline-block align-middle" aria-hidden="true">
              <rect x="0.5" y="0.5" width="85" height="13" class="fill-sheet stroke-ink-soft" />
              <rect x="1" y="1" :width="84 * share(hours)" height="12" class="fill-part" />
            </svg>
            <span class="num pl-1.5">{{ hours.toFixed(0) }}</span>
          </td>
          <td><a class="link" :href="file(one.name)" :aria-label="`.ics of ${one.name}`">.ics</a></td>
        </tr>
      </tbody>
    </table>
    <p class="text-sm text-ink-soft">
      from {{ weeks.map((week) => dayWords(week)).join(' and ') }} ·
      <a class="link" href="/api/calendar.ics">the whole shop as iCalendar</a>
    </p>
  </section>
</template>
