<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import { ask } from '@/api/ask'
import { addGauge, type GaugeBody, type GaugeVersion, saveGaugeVersion } from '@/api/generated'
import { SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import DateField from '@/shared/ui/DateField.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A gauge, or its next version: what was read before keeps the version it was read with. */
const props = defineProps<{ gauge: GaugeVersion | null }>()
const emit = defineEmits<{ saved: []; leave: [] }>()
const KINDS = ['depth gauge', 'micrometer', 'bore gauge', 'indicator', 'feeler', 'rule'].map((kind) => ({
  value: kind,
  label: kind,
}))

const inMm = (um: string | number | null | undefined) =>
  um === null || um === undefined ? '' : `${Number(um) / 1000} mm`
const fresh = () => ({
  name: props.gauge?.name ?? '',
  kind: props.gauge?.kind ?? 'depth gauge',
  resolution: props.gauge ? `${Number(props.gauge.resolution_um)} µm` : '',
  repeatability: props.gauge ? `${Number(props.gauge.repeatability_um)} µm` : '',
  tip: props.gauge?.tip ?? '',
  note: props.gauge?.note ?? '',
  range_from: inMm(props.gauge?.range_from_um),
  range_to: inMm(props.gauge?.range_to_um),
  tip_radius: inMm(props.gauge?.tip_radius_um),
  calibrated_on: props.gauge?.calibrated_on ?? '',
  due_on: props.gauge?.due_on ?? '',
  owner: props.gauge?.owner ?? '',
  master: props.gauge?.master ?? '',
  faults: props.gauge?.faults ?? '',
})
const draft = useLocalStorage(`vallo-gauge-${props.gauge?.gauge_version_id ?? 'new'}`, fresh(), {
  mergeDefaults: true,
})
const { refusal, send, answer } = useForm()

/** An empty date is none. */
function written(confirmed: boolean): GaugeBody {
  const { calibrated_on, due_on, ...rest } = draft.value
  return {
    ...rest,
    calibrated_on: calibrated_on || null,
    due_on: due_on || null,
    confirmed,
    small_unit: unit.value,
    size_unit: SIZE_WITH[unit.value],
  }
}

const put = (path: string, text: string) => Object.assign(draft.value, { [path]: text })

function save(confirmed = false): Promise<void> {
  return send(async () => {
    const gauge = props.gauge
    if (gauge) {
      const body = { ...written(confirmed), based_on_version: gauge.version }
      await ask(saveGaugeVersion({ path: { gauge_id: gauge.gauge_id }, body }))
    } else {
      await ask(addGauge({ body: written(confirmed) }))
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
    @submit.prevent="save()"
  >
    <h2 class="text-lg">{{ gauge ? `Change ${gauge.name}` : 'Add a gauge' }}</h2>
    <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, save)" />
    <div class="grid gap-3 sm:grid-cols-2">
      <TextField v-model="draft.name" label="Name on it" path="name" />
      <ChoiceField v-model="draft.kind" label="Kind" :choices="KINDS" path="kind" />
      <TextField v-model="draft.resolution" label="One step of its scale" path="resolution" :bare="unit" />
      <TextField
        v-model="draft.repeatability"
        label="Repeats within, one standard deviation"
        path="repeatability"
        :bare="unit"
        hint="read one spot ten times; common practice: half a step at least"
      />
      <TextField v-model="draft.range_from" label="Reads from" path="range_from" :bare="SIZE_WITH[unit]" />
      <TextField v-model="draft.range_to" label="to" path="range_to" :bare="SIZE_WITH[unit]" />
      <TextField v-model="draft.tip" label="Tip" path="tip" />
      <TextField
        v-model="draft.tip_radius"
        label="Radius of the tip"
        path="tip_radius"
        :bare="SIZE_WITH[unit]"
      />
      <DateField v-model="draft.calibrated_on" label="Calibrated on" path="calibrated_on" />
      <DateField v-model="draft.due_on" label="Due again on" path="due_on" />
      <TextField
        v-model="draft.master"
        label="Checked against"
        path="master"
        hint="the master by its name: gauges of different owners compare only over one"
      />
      <TextField v-model="draft.owner" label="Belongs to" path="owner" hint="empty: the shop" />
      <TextField v-model="draft.faults" label="Known faults" path="faults" />
      <TextField v-model="draft.note" label="Note" path="note" />
    </div>
    <div class="flex gap-3">
      <button type="submit" class="act">{{ gauge ? 'Save as next version' : 'Add the gauge' }}</button>
      <button v-if="gauge" type="button" class="quiet" @click="emit('leave')">Leave it as it is</button>
    </div>
  </form>
</template>
