<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  changeSetup,
  type GaugeVersion,
  listGauges,
  listSettingMasters,
  type SettingMaster,
  type SurveyView,
  type ZeroedOn,
} from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { stands, ZERO_CHOICES } from '@/shared/format/zero'
import { featureOf } from '@/shared/state/catalogue'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DialogFrame from '@/shared/ui/DialogFrame.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import PlateFields from './PlateFields.vue'
import SurveyLoad from './SurveyLoad.vue'
import { choicesOf } from './ways'

/** Gauge, what it is set on, load and method belong to every reading of this feature from now on. */
const props = defineProps<{ open: boolean; survey: SurveyView; jobId: string }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const { data: known } = useLoaded(() => Promise.all([ask(listGauges()), ask(listSettingMasters())]))
const gauges = computed<GaugeVersion[]>(() => known.value?.[0] ?? [])
const masters = computed<SettingMaster[]>(() => known.value?.[1] ?? [])
const { refusal, send, answer } = useForm()
const EMPTY = {
  gauge: '',
  zeroedOn: 'datum' as ZeroedOn,
  master: '',
  zero: '',
  load: '',
  fasteners: '',
  torque: '',
  method: '',
  masterC: '',
  gaugeC: '',
  from: '',
}
const form = useLocalStorage(`vallo-survey-setup-${props.jobId}-${props.survey.quantity}`, { ...EMPTY })

watch(known, () => {
  if (!props.open) return
  // Opened before the cabinet was known: what has a name only now is added, what was chosen meanwhile stays.
  form.value.gauge ||= gaugeChoices.value[0]?.value ?? ''
  form.value.master ||=
    masters.value.find((one) => one.name === props.survey.setup?.master)?.setting_master_id ?? ''
})
watch(
  () => props.open,
  (open) => open && fill(),
)
/** A dialog opened anew starts from how it is read now; one reloaded meanwhile keeps what was typed. */
function fill(): void {
  const now = props.survey.setup
  const from = now?.chosen_at ?? 'none'
  if (form.value.from === from) return
  form.value = {
    gauge: now?.gauge.gauge_id ?? gaugeChoices.value[0]?.value ?? '',
    zeroedOn: now?.zeroed_on ?? (props.survey.is_diameter ? 'setting master' : 'datum'),
    master: masters.value.find((one) => one.name === now?.master)?.setting_master_id ?? '',
    zero: now && !now.master ? now.zero_typed : '',
    load: now?.load ?? '',
    fasteners: now?.hold_down ?? '',
    torque: now?.hold_down_torque_nm == null ? '' : String(Number(now.hold_down_torque_nm)),
    method: now?.method ?? '',
    masterC: String(now?.master_temp_c ?? ''),
    gaugeC: String(now?.gauge_temp_c ?? ''),
    from,
  }
}
/** Gauges made for this come first, the finest at the head; the others can still be chosen. */
const gaugeChoices = computed(() => {
  const suited = props.survey.suited_gauges
  const place = (id: string) => (suited.includes(id) ? suited.indexOf(id) : suited.length)
  return [...gauges.value]
    .sort((one, other) => place(one.gauge_id) - place(other.gauge_id))
    .map((gauge) => {
      const step = lengthText(Number(gauge.resolution_um) / 1e6, unit.value, { digits: 1 })
      const words = [gauge.name, gauge.kind, `step ${step} ${unit.value}`]
      if (!suited.includes(gauge.gauge_id)) words.push('not made for this')
      return { value: gauge.gauge_id, label: words.join(' · ') }
    })
})
const masterChoices = computed(() => [
  { value: '', label: 'one that is not in the cabinet' },
  ...masters.value.map((one) => ({
    value: one.setting_master_id,
    label: `${one.name} · ${lengthText(Number(one.size_um) / 1e6, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 5 : 4 })} ${SIZE_WITH[unit.value]}`,
  })),
])
const methods = computed(() => choicesOf(featureOf(props.survey.quantity)?.methods))
/** Where nothing but a temperature differs it was noted wrongly, or the gauge was zeroed anew. */
const putRight = ref(true)
const onlyWarmer = computed(() => {
  const now = props.survey.setup
  if (!now) return false
  const { gauge, zeroedOn, zero, load, method, masterC, gaugeC } = form.value
  const same =
    gauge === now.gauge.gauge_id &&
    zeroedOn === now.zeroed_on &&
    load === now.load &&
    form.value.fasteners === now.hold_down &&
    form.value.torque === (now.hold_down_torque_nm == null ? '' : String(Number(now.hold_down_torque_nm))) &&
    method === now.method &&
    (now.master !== '' || zero === now.zero_typed)
  return same && (masterC !== String(now.master_temp_c ?? '') || gaugeC !== String(now.gauge_temp_c ?? ''))
})
const isClamped = computed(() => /plate on|head on/.test(form.value.load))
const PATHS: Record<string, 'zero' | 'masterC' | 'gaugeC'> = {
  zero: 'zero',
  master_temp: 'masterC',
  gauge_temp: 'gaugeC',
}
function put(path: string, text: string): void {
  const name = PATHS[path]
  if (name) form.value[name] = text
}

function save(confirmed = false): Promise<void> {
  return send(async () => {
    const { gauge, zeroedOn, master, zero, load, method, masterC, gaugeC, fasteners, torque } = form.value
    const onMaster = zeroedOn === 'setting master' && master !== ''
    await ask(
      changeSetup({
        path: { job_id: props.jobId },
        body: {
          quantity: props.survey.quantity,
          gauge_id: gauge,
          zeroed_on: zeroedOn,
          setting_master_id: onMaster ? master : null,
          zero: stands(zeroedOn) && !onMaster ? zero : '',
          bare_unit: bareFor(props.survey.is_size, unit.value),
          load,
          hold_down: isClamped.value ? fasteners : '',
          hold_down_torque: isClamped.value ? torque : '',
          method,
          master_temp: stands(zeroedOn) ? masterC : '',
          gauge_temp: gaugeC,
          corrects: onlyWarmer.value && putRight.value,
          confirmed,
          person_id: personId.value,
        },
      }),
    )
    form.value = { ...EMPTY }
    emit('changed')
  })
}
</script>

<template>
  <DialogFrame :open="open" :title="`How ${survey.quantity} is read`" @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="save()">
      <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, save)" />
      <ChoiceField v-model="form.gauge" label="Gauge" :choices="gaugeChoices" path="gauge_id" />
      <ChoiceField v-model="form.zeroedOn" label="Zeroed on" :choices="ZERO_CHOICES" path="zeroed_on" />
      <ChoiceField
        v-if="form.zeroedOn === 'setting master'"
        v-model="form.master"
        label="which master"
        :choices="masterChoices"
        path="setting_master_id"
      />
      <TextField
        v-if="stands(form.zeroedOn) && !(form.zeroedOn === 'setting master' && form.master)"
        v-model="form.zero"
        label="of the size"
        path="zero"
        hint="empty: as on the card"
        :bare="bareFor(survey.is_size, unit)"
      />
      <div class="grid grid-cols-2 gap-3">
        <TextField
          v-if="stands(form.zeroedOn)"
          v-model="form.masterC"
          label="Master"
          unit="°C, or 70 F"
          path="master_temp"
        />
        <TextField v-model="form.gaugeC" label="Gauge" unit="°C, or 70 F" path="gauge_temp" />
      </div>
      <ChoiceField
        v-if="methods.length > 1"
        v-model="form.method"
        label="Method"
        :choices="methods"
        path="method"
      />
      <SurveyLoad v-model="form.load" :quantity="survey.quantity" />
      <PlateFields v-if="isClamped" v-model:fasteners="form.fasteners" v-model:torque="form.torque" />
      <label v-if="onlyWarmer" class="text-sm"
        ><input v-model="putRight" type="checkbox" /> the temperature was noted wrongly: put it right for what
        was read. Else the gauge was zeroed anew, and a new set starts.</label
      >
      <p v-else class="caution">
        Another gauge, another zero or another way of holding starts a new set: what was read before stays on
        record.
      </p>
      <button type="submit" class="act justify-self-start">Read this way from now on</button>
    </form>
  </DialogFrame>
</template>
