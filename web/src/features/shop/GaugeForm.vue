<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { addGauge, type GaugeVersion, saveGaugeVersion } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A gauge, or its next version: what was read before keeps the version it was read with. */
const props = defineProps<{ gauge: GaugeVersion | null }>()
const emit = defineEmits<{ saved: []; leave: [] }>()
const KINDS = ['depth gauge', 'micrometer', 'bore gauge'].map((kind) => ({ value: kind, label: kind }))

const fresh = () => ({
  name: props.gauge?.name ?? '',
  kind: props.gauge?.kind ?? 'depth gauge',
  resolution: props.gauge ? `${Number(props.gauge.resolution_um)} µm` : '',
  repeatability: props.gauge ? `${Number(props.gauge.repeatability_um)} µm` : '',
  tip: props.gauge?.tip ?? '',
  note: props.gauge?.note ?? '',
})
const draft = useLocalStorage(`vallo-gauge-${props.gauge?.gauge_version_id ?? 'new'}`, fresh())
const { refusal, send } = useForm()

function save(): Promise<void> {
  return send(async () => {
    const gauge = props.gauge
    if (gauge) {
      const body = { ...draft.value, based_on_version: gauge.version }
      await ask(saveGaugeVersion({ path: { gauge_id: gauge.gauge_id }, body }))
    } else {
      await ask(addGauge({ body: draft.value }))
    }
    draft.value = fresh()
    emit('saved')
  })
}
</script>

<template>
  <form
    class="grid max-w-3xl gap-3"
    :aria-label="gauge ? `Change ${gauge.name}` : 'Add a gauge'"
    @submit.prevent="save"
  >
    <h2 class="text-lg">{{ gauge ? `Change ${gauge.name}` : 'Add a gauge' }}</h2>
    <RefusalNote :refusal="refusal" />
    <div class="grid gap-3 sm:grid-cols-2">
      <TextField v-model="draft.name" label="Name on it" path="name" />
      <ChoiceField v-model="draft.kind" label="Kind" :choices="KINDS" path="kind" />
      <TextField
        v-model="draft.resolution"
        label="One step of its scale"
        path="resolution"
        hint="a bare number is µm"
      />
      <TextField
        v-model="draft.repeatability"
        label="Repeats within, one standard deviation"
        path="repeatability"
        hint="read one spot ten times; common practice: half a step at least"
      />
      <TextField v-model="draft.tip" label="Tip" path="tip" />
      <TextField v-model="draft.note" label="Note" path="note" />
    </div>
    <div class="flex gap-3">
      <button type="submit" class="act">{{ gauge ? 'Save as next version' : 'Add the gauge' }}</button>
      <button v-if="gauge" type="button" class="quiet" @click="emit('leave')">Leave it as it is</button>
    </div>
  </form>
</template>
