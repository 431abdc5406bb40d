<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import RefusalNote from '@/shared/ui/RefusalNote.vue'

import CalendarPicture from './CalendarPicture.vue'
import ChangeForm from './ChangeForm.vue'
import ChangePanel from './ChangePanel.vue'
import JobDetails from './JobDetails.vue'
import MachineLegend from './MachineLegend.vue'
import PeopleHours from './PeopleHours.vue'
import { useCalendar } from './useCalendar'
import { headline, momentWords } from './words'

/** The calendar of the shop: every open job laid out, how sure each date is, and what a change would move. */
const now = useCalendar()
const { shown, missing, tried } = now
const route = useRoute()
const router = useRouter()
const VIEWS = [
  { key: 'job', label: 'rules by job' },
  { key: 'machine', label: 'by machine' },
  { key: 'person', label: 'by person' },
] as const
type By = (typeof VIEWS)[number]['key']
const by = computed<By>(() => VIEWS.find((one) => one.key === route.query['by'])?.key ?? 'job')
const chosen = computed(() => shown.value?.jobs.find((one) => one.job_id === route.query['job']) ?? null)
const weeksOn = ref(0)
const go = (query: Record<string, string>) => void router.replace({ query: { ...route.query, ...query } })
const said = computed(() => (shown.value ? headline(shown.value) : null))
</script>

<template>
  <main class="mx-auto w-full max-w-[1500px] flex-1 px-5 py-3">
    <RefusalNote :refusal="missing" />
    <p v-if="!shown && !missing" class="py-6 text-ink-soft" aria-busy="true">
      The calendar is being laid out.
    </p>
    <template v-if="shown && said">
      <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 class="text-xl">Calendar</h1>
        <p class="text-ink-soft">
          {{ shown.jobs.length }} jobs, {{ shown.people.length }} people · a tick is two hours of work · blank
          steel waits ·
          {{ shown.proven ? 'proven best' : `at most ${Math.ceil(100 * shown.gap)} % from the best` }}
        </p>
        <RouterLink class="link" :to="{ name: 'shop-time' }">Hours and absences</RouterLink>
        <div class="ml-auto flex" role="group" aria-label="Laid out">
          <button
            v-for="one in VIEWS"
            :key="one.key"
            type="button"
            class="min-h-10 border border-ink px-3"
            :class="one.key === by ? 'bg-ink font-bold text-paper' : 'text-ink-soft'"
            :aria-pressed="one.key === by"
            @click="go({ by: one.key })"
          >
            {{ one.label }}
          </button>
        </div>
      </div>
      <div class="mt-1 flex flex-wrap items-baseline gap-x-4">
        <p class="text-lg leading-snug" aria-live="polite">
          <b class="text-2xl">{{ tried ? 'If so: ' : '' }}{{ said.first }}</b> {{ said.rest }}
        </p>
        <div class="ml-auto flex gap-4 text-sm">
          <button type="button" class="link" @click="weeksOn -= 1">a week back</button>
          <button type="button" class="link" @click="weeksOn += 1">a week on</button>
        </div>
      </div>
      <CalendarPicture
        class="mt-1"
        :view="shown"
        :by="by"
        :weeks-on="weeksOn"
        :chosen="chosen?.job_id ?? ''"
        @choose="(job) => go({ job })"
      />
      <div
        class="mt-2 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 border-t-2 border-ink pt-3 lg:grid-cols-[minmax(0,10fr)_minmax(0,7fr)_minmax(0,8fr)]"
      >
        <MachineLegend :view="shown" />
        <div class="grid content-start gap-4">
          <PeopleHours :view="shown" />
          <ul v-if="shown.visits.length" aria-label="Visits" class="text-sm">
            <li v-for="one in shown.visits" :key="`${one.name}${one.starts_at}`" class="py-0.5">
              <b>{{ one.name }}</b> comes {{ momentWords(one.starts_at)
              }}<template v-if="one.does.length">
                to {{ one.does.join(', ').toLowerCase() }}, {{ one.job }}</template
              >.
              <span v-if="one.not_ready.length" class="font-bold text-out"
                >Not ready by then: {{ one.not_ready.join(', ').toLowerCase() }}.</span
              >
              <template v-if="one.needs.length">Needs {{ one.needs.join(', ') }}.</template>
            </li>
          </ul>
          <ul v-if="shown.reminders.length" aria-label="Not to be forgotten" class="text-sm">
            <li v-for="one in shown.reminders.slice(0, 4)" :key="`${one.at}${one.words}`" class="py-0.5">
              <b class="num">{{ momentWords(one.at) }}</b> {{ one.job }}: {{ one.words }}
            </li>
          </ul>
        </div>
        <ChangePanel :now="now" :view="shown" />
      </div>
      <ul v-if="shown.alarms.length" class="mt-3" aria-label="Owners' last days">
        <li v-for="one in shown.alarms" :key="one" class="font-bold text-out">{{ one }}</li>
      </ul>
      <div
        class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
      >
        <JobDetails :view="shown" :chosen="chosen" :now="now" @choose="(job) => go({ job })" />
        <ChangeForm :view="now.view.value ?? shown" :chosen="chosen?.job_id ?? ''" :now="now" />
      </div>
    </template>
  </main>
</template>
