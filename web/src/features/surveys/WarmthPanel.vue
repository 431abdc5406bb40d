<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import {
  listThermometers,
  strike,
  type SurveyView,
  takeTemperature,
  type ThermometerView,
} from '@/api/generated'
import { smallText } from '@/shared/format/lengths'
import { warmthText } from '@/shared/format/others'
import { newId } from '@/shared/newId'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { SurveyBench } from '@/shared/state/useSurvey'

/** How warm part, gauge, master and room are; what that does to a size, and when the part is soaked. */
const props = defineProps<{ survey: SurveyView; bench: SurveyBench; jobId: string }>()
const body = ref<'part' | 'room'>('part')
const text = ref('')
const { refusal, busy, send, answer } = useForm()
const warmth = computed(() => props.survey.warmth)
const loose = computed(() => props.survey.has_own_temperature)

const known = computed(() =>
  [
    [loose.value ? 'part' : 'block', warmth.value.part_c],
    ['master', warmth.value.master_c],
    ['gauge', warmth.value.gauge_c],
    ['room', warmth.value.room_c],
  ].filter((one): one is [string, string] => one[1] !== null),
)
/** Less than this moves nothing that a shop gauge shows. [m] */
const FELT_M = 1e-6
const warning = computed(() => {
  const effect = warmth.value.effect_m
  if (effect === null || Math.abs(effect) < FELT_M) return ''
  const side = effect > 0 ? 'warm: it reads' : 'cold: it reads'
  return `The ${loose.value ? 'part' : 'block'} is ${side} ${smallText(Math.abs(effect), null, unit.value, { signed: false })} ${effect > 0 ? 'large' : 'small'}.`
})
const missing = computed(() => {
  if (!props.survey.is_diameter || props.survey.at_20c) return ''
  const reference = props.survey.setup?.zeroed_on === 'datum' ? 'gauge' : 'master'
  const needs = [
    warmth.value.readings_c === null
      ? `of ${loose.value ? 'the part' : 'the block'} within 4 h of reading`
      : '',
    warmth.value[`${reference}_c`] === null ? `of the ${reference}, when the gauge was set` : '',
  ].filter(Boolean)
  return needs.length ? `Sizes are as read: there is no temperature ${needs.join(' and none ')}.` : ''
})
const soak = computed(() => {
  const left = warmth.value.soak_s
  if (left === null) return ''
  return left === 0
    ? 'It is as warm as the room.'
    : `As warm as the room in about ${Math.ceil(left / 60)} min, if it goes on so.`
})

/** What a thermometer says is taken with one key. */
const ASK_MS = 2000
const talking = useLoaded(() => ask(listThermometers()))
useIntervalFn(() => void talking.load(), ASK_MS)
/** What is clipped to a hot block or a cold liner says nothing of what is measured here. */
const beside = computed(() =>
  (talking.data.value ?? []).filter((one) => one.lies_on === 'part' || one.lies_on === 'room'),
)
const live = computed(() => beside.value.filter((one) => one.state === 'live' && one.celsius !== null))
const silent = computed(() => beside.value.filter((one) => one.state !== 'live' && one.message))
/** Leaves alone what stands typed in the field. */
function takeFrom(one: ThermometerView): Promise<void> {
  return send(() => note(one.lies_on === 'room' ? 'room' : 'part', one.text))
}

function strikeLast(): Promise<void> {
  return send(async () => {
    const event = warmth.value.part_temperature_event
    if (event === null) return
    const body = { struck: true, reason: 'taken wrongly', person_id: personId.value }
    await ask(strike({ path: { job_id: props.jobId, event }, body }))
    await props.bench.load()
  })
}
function take(confirmed = false): Promise<void> {
  return send(async () => {
    const typed = text.value
    await note(body.value, typed, confirmed)
    if (text.value === typed) text.value = ''
  })
}
async function note(of: 'part' | 'room', typed: string, confirmed = true): Promise<void> {
  const part = of === 'part' && loose.value ? props.survey.part.key : ''
  const one = { temperature_id: newId(), body: of, part, text: typed, confirmed, person_id: personId.value }
  await ask(takeTemperature({ path: { job_id: props.jobId }, body: one }))
  await props.bench.load()
}
</script>

<template>
  <section aria-label="Temperature">
    <p class="flex flex-wrap gap-x-4">
      <span v-for="[name, celsius] in known" :key="name"
        ><span class="text-ink-soft">{{ name }}</span> <b class="num">{{ warmthText(celsius) }}</b></span
      >
      <button
        v-if="warmth.part_temperature_event !== null"
        type="button"
        class="link text-sm"
        :disabled="busy"
        @click="strikeLast"
      >
        strike the last
      </button>
      <span v-if="survey.at_20c" class="text-ink-soft">sizes brought to 20 °C</span>
    </p>
    <p v-if="warning" class="text-unsure">{{ warning }} {{ soak }}</p>
    <p v-else-if="soak">{{ soak }}</p>
    <p v-if="missing" class="text-sm text-ink-soft">{{ missing }}</p>
    <form class="flex flex-wrap items-end gap-3" @submit.prevent="take()">
      <label class="text-sm text-ink-soft"
        >Temperature of
        <select v-model="body" class="field">
          <option value="part">{{ loose ? 'this part' : 'the block' }}</option>
          <option value="room">the room</option>
        </select>
      </label>
      <div class="w-28"><TextField v-model="text" label="is" path="text" unit="°C, or 70 F" /></div>
      <button type="submit" class="quiet min-h-11" :disabled="text.trim() === '' || busy">Note it</button>
    </form>
    <p v-if="live.length" class="flex flex-wrap gap-3 pt-2">
      <button
        v-for="one in live"
        :key="one.name"
        type="button"
        class="quiet min-h-11"
        :disabled="busy"
        @click="takeFrom(one)"
      >
        Take <b class="num">{{ Number(one.celsius).toFixed(1) }} °C</b> from {{ one.name }}
      </button>
    </p>
    <p v-for="one in silent" :key="one.name" class="text-sm text-unsure">{{ one.name }}: {{ one.message }}</p>
    <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, (_, said) => (text = said), take)" />
  </section>
</template>
