<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  addAbsence,
  listJobs,
  type Machine,
  readShopTime,
  setMachine,
  setOpenHours,
  type ShopTimeView,
  takeBack,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import { people } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

import VisitForm from './VisitForm.vue'
import { spanWords, WEEKDAYS, weekOf } from './hours'
import { momentWords } from './words'

/** The shop's own time: when it is open, who and what cannot be had, how many machines there are, who visits. */
const { data, refusal: missing } = useLoaded<ShopTimeView>(() => ask(readShopTime()))
const { data: jobs } = useLoaded(() => ask(listJobs()))
const form = useForm()
const hours = ref({ zone: '', week: WEEKDAYS.map(() => '') })
watch(data, (now) => {
  if (now) hours.value = { zone: now.hours.zone, week: now.hours.week.map(spanWords) }
})
const zones = computed(() => {
  const own = hours.value.zone
  const known = Intl.supportedValuesOf('timeZone')
  return [...new Set([own, 'UTC', ...known])].filter(Boolean).map((one) => ({ value: one, label: one }))
})
const what = computed(() => [
  { value: '', label: 'the whole shop' },
  ...people.value.map((one) => ({ value: one.name, label: one.name })),
  ...Object.keys(data.value?.machines ?? {}).map((one) => ({ value: one, label: one })),
])
const away = ref({ what: '', from: '', until: '', words: '' })
const taken = async (work: () => Promise<ShopTimeView>) =>
  form.send(async () => void (data.value = await work()))
const saveHours = () =>
  taken(() =>
    ask(
      setOpenHours({
        body: { zone: hours.value.zone, week: weekOf(hours.value.week), person_id: personId.value },
      }),
    ),
  )
const saveAway = () =>
  taken(async () => {
    const { from, until } = away.value
    const body = {
      away_id: newId(),
      what: away.value.what,
      starts: `${from}T00:00`,
      ends: `${until || from}T23:45`,
      words: away.value.words,
      person_id: personId.value,
    }
    const now = await ask(addAbsence({ body }))
    away.value = { what: '', from: '', until: '', words: '' }
    return now
  })
const back = (kind: 'away' | 'visits', row_id: string) =>
  taken(() => ask(takeBack({ path: { what: kind, row_id }, body: { person_id: personId.value } })))
const count = (machine: Machine, event: Event) =>
  taken(() =>
    ask(
      setMachine({
        body: { machine, count: Number((event.target as HTMLInputElement).value), person_id: personId.value },
      }),
    ),
  )
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <div class="mt-2 flex flex-wrap items-center gap-4">
      <h1 class="text-xl">Hours, absences, machines</h1>
      <RouterLink class="link" :to="{ name: 'calendar' }">Calendar</RouterLink>
    </div>
    <RefusalNote
      :refusal="missing ?? elsewhere(form.refusal.value, ['zone', 'what', 'words', 'starts', 'ends'])"
    />
    <div v-if="data" class="mt-3 grid gap-8 lg:grid-cols-2">
      <form class="grid content-start gap-3" aria-labelledby="open-hours" @submit.prevent="saveHours">
        <h2 id="open-hours" class="text-lg">Open</h2>
        <ChoiceField v-model="hours.zone" label="Time zone" :choices="zones" path="zone" />
        <div class="grid grid-cols-2 gap-x-4 gap-y-2">
          <TextField
            v-for="(day, at) in WEEKDAYS"
            :key="day"
            v-model="hours.week[at]!"
            :label="day"
            hint="8:00-12:00, 13:00-17:00"
          />
        </div>
        <p class="text-sm text-ink-soft">An empty day is shut.</p>
        <button type="submit" class="act justify-self-start" :disabled="form.busy.value">
          Save the hours
        </button>
      </form>
      <div class="grid content-start gap-6">
        <section aria-labelledby="away-title">
          <h2 id="away-title" class="text-lg">Cannot be had</h2>
          <ul class="mb-3">
            <li v-for="one in data.away" :key="one.away_id" class="flex gap-3 border-b border-rule py-1">
              <span
                ><b>{{ one.what || 'the whole shop' }}</b> {{ momentWords(one.starts_at) }} –
                {{ momentWords(one.ends_at) }} <span class="text-ink-soft">{{ one.words }}</span></span
              >
              <button type="button" class="link ml-auto" @click="back('away', one.away_id)">take back</button>
            </li>
          </ul>
          <form class="grid grid-cols-2 gap-3" aria-label="An absence" @submit.prevent="saveAway">
            <ChoiceField v-model="away.what" label="Who or what" :choices="what" path="what" />
            <TextField v-model="away.words" label="Why" path="words" />
            <DateField v-model="away.from" label="From" path="starts" />
            <DateField v-model="away.until" label="Until, the day within" path="ends" />
            <button type="submit" class="act justify-self-start" :disabled="form.busy.value || !away.from">
              Add it
            </button>
          </form>
        </section>
        <section aria-labelledby="machines-title">
          <h2 id="machines-title" class="text-lg">Machines</h2>
          <ul class="grid grid-cols-2 gap-x-6 gap-y-1">
            <li v-for="(many, machine) in data.machines" :key="machine" class="flex items-center gap-3">
              <label class="flex-1" :for="`many-${machine}`">{{ machine }}</label>
              <input
                :id="`many-${machine}`"
                type="number"
                min="1"
                max="20"
                class="field w-20"
                :value="many"
                @change="(event) => count(machine as Machine, event)"
              />
            </li>
          </ul>
        </section>
        <VisitForm
          :visits="data.visits"
          :jobs="jobs ?? []"
          @added="(now) => (data = now)"
          @back="(id) => back('visits', id)"
        />
      </div>
    </div>
  </main>
</template>
