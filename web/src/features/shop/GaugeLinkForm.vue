<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { type GaugeLinkBody, setUpGaugeLink, type TalkingGaugeView } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Where a gauge sends its lines and how they are written. */
const props = defineProps<{
  choices: { value: string; label: string }[]
  link: TalkingGaugeView | null
}>()
const gauge = defineModel<string>('gauge', { required: true })
const emit = defineEmits<{ saved: [] }>()
const UNITS = (['mm', 'µm', 'thou', 'inch'] as const).map((unit) => ({ value: unit, label: unit }))
const fresh = () => ({
  url: props.link?.url ?? '',
  line_pattern: props.link?.line_pattern ?? '{value} {unit}',
  unit: props.link?.unit ?? 'mm',
  simulated: props.link?.simulated ?? false,
})
const draft = useLocalStorage(`vallo-line-${gauge.value || 'new'}`, fresh())
const { refusal, send } = useForm()

function save(): Promise<void> {
  return send(async () => {
    const body = { ...draft.value, unit: draft.value.unit as GaugeLinkBody['unit'] }
    await ask(setUpGaugeLink({ path: { gauge_id: gauge.value }, body }))
    draft.value = fresh()
    emit('saved')
  })
}
</script>

<template>
  <form class="grid max-w-3xl gap-3" aria-label="Set up a line" @submit.prevent="save">
    <RefusalNote :refusal="refusal" />
    <div class="grid gap-3 sm:grid-cols-4">
      <ChoiceField
        v-model="gauge"
        label="Gauge"
        :choices="[{ value: '', label: 'Choose a gauge' }, ...choices]"
      />
      <TextField
        v-model="draft.url"
        label="Sends to"
        path="url"
        hint="/dev/ttyUSB0 or socket://127.0.0.1:8430"
      />
      <TextField
        v-model="draft.line_pattern"
        label="Its lines look like"
        path="line_pattern"
        hint="{value} once, {unit} at most once"
      />
      <ChoiceField v-model="draft.unit" label="Set to" :choices="UNITS" path="unit" />
    </div>
    <label class="text-sm"
      ><input v-model="draft.simulated" type="checkbox" /> a simulated gauge: tell it where its tip
      stands</label
    >
    <button type="submit" class="quiet justify-self-start" :disabled="gauge === ''">
      Listen there from now on
    </button>
  </form>
</template>
