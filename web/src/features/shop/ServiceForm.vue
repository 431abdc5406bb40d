<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type GaugeVersion, noteGaugeService, type ServiceBody } from '@/api/generated'
import { dayText } from '@/shared/format/time'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** One line of a gauge's service log. */
const props = defineProps<{ gauges: GaugeVersion[] }>()
const emit = defineEmits<{ saved: [] }>()
const KINDS: ServiceBody['kind'][] = [
  'oiled',
  'wear found',
  'calibrated',
  'lent',
  'brought back',
  'repaired',
  'dropped',
]
const gauge = ref('')
const kind = ref<string>('oiled')
const words = ref('')
const doneOn = ref(dayText())
const { refusal, send } = useForm()
const gaugeChoices = computed(() => [
  { value: '', label: 'choose' },
  ...props.gauges.map((one) => ({ value: one.gauge_id, label: one.name })),
])

function save(): Promise<void> {
  return send(async () => {
    const body: ServiceBody = {
      kind: kind.value as ServiceBody['kind'],
      words: words.value,
      done_on: doneOn.value,
      person_id: personId.value,
    }
    await ask(noteGaugeService({ path: { gauge_id: gauge.value }, body }))
    words.value = ''
    emit('saved')
  })
}
</script>

<template>
  <form class="grid gap-3" aria-label="Note what was done" @submit.prevent="save">
    <h2 class="text-lg">Note what was done</h2>
    <RefusalNote :refusal="refusal" />
    <ChoiceField v-model="gauge" label="Gauge" :choices="gaugeChoices" path="gauge_id" />
    <div class="grid grid-cols-2 gap-3">
      <ChoiceField
        v-model="kind"
        label="What"
        :choices="KINDS.map((one) => ({ value: one, label: one }))"
        path="kind"
      />
      <DateField v-model="doneOn" label="On" path="done_on" />
    </div>
    <TextField v-model="words" label="In words" path="words" hint="to whom it was lent, what was found" />
    <button type="submit" class="quiet min-h-11 justify-self-start" :disabled="!gauge">Note it</button>
  </form>
</template>
