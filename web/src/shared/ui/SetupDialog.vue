<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  type BlockView,
  changeSetup,
  type GaugeVersion,
  listGauges,
  listSuitedGauges,
  type Quantity,
  type ZeroedOn,
} from '@/api/generated'
import { bareUnit } from '@/shared/format/bareUnit'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { CAPABILITY_TONE } from '@/shared/format/tones'
import { stands, ZERO_CHOICES } from '@/shared/format/zero'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from './ChoiceField.vue'
import DialogFrame from './DialogFrame.vue'
import RefusalChoices from './RefusalChoices.vue'
import TextField from './TextField.vue'
import { useForm } from './useForm'

/** Gauge, land, datum and clamp are part of every reading: changing one re-opens what was read before. */
const props = defineProps<{ open: boolean; block: BlockView; jobId: string; quantity: Quantity }>()
const emit = defineEmits<{ close: []; changed: [] }>()

const { data: known } = useLoaded(async () => {
  const path = { job_id: props.jobId, quantity: props.quantity }
  return Promise.all([ask(listGauges()), ask(listSuitedGauges({ path }))])
})
const gauges = computed<GaugeVersion[]>(() => known.value?.[0] ?? [])
const { refusal, send, answer } = useForm()
const EMPTY = {
  gauge: '',
  zeroedOn: 'datum' as ZeroedOn,
  zero: '',
  land: '',
  datum: '',
  holdDown: '',
  torque: '',
  sharedZero: true,
  from: '',
}
/** Kept while the dialog is open, so that a reload loses nothing; `from` says which setup it started from. */
const form = useLocalStorage(`vallo-setup-${props.jobId}-${props.quantity}`, { ...EMPTY })

/** Another zero starts without the size of the one before. */
const zeroedOn = computed({
  get: () => form.value.zeroedOn,
  set: (on: string) => (form.value = { ...form.value, zeroedOn: on as ZeroedOn, zero: '' }),
})

const present = computed(() => props.block.setups.find((one) => one.quantity === props.quantity))
/** Gauges made for this come first, the finest at the head; the others can still be chosen. */
const suited = computed(() => known.value?.[1] ?? null)
const isSuited = (id: string) => suited.value?.includes(id) ?? true
const gaugeChoices = computed(() =>
  [...gauges.value]
    .sort((one, other) => Number(isSuited(other.gauge_id)) - Number(isSuited(one.gauge_id)))
    .map((gauge) => {
      const step = lengthText(Number(gauge.resolution_um) / 1e6, unit.value, { digits: 1 })
      const words = [gauge.name, gauge.kind, `step ${step} ${unit.value}`]
      if (!isSuited(gauge.gauge_id)) words.push('not made for this')
      return { value: gauge.gauge_id, label: words.join(' · ') }
    }),
)
const lacksOne = computed(() => suited.value?.length === 0)
const landChoices = computed(() =>
  props.quantity === 'counterbore depth'
    ? [{ value: 'ledge', label: 'ledge' }]
    : props.block.card.lands.map(([name, , note]) => ({
        value: name,
        label: note ? `${name}: ${note}` : name,
      })),
)

/** The land of the card where it is one of those that this is read on. */
const firstLand = computed(() => {
  const { land } = props.block.card
  return landChoices.value.some((one) => one.value === land) ? land : (landChoices.value[0]?.value ?? land)
})

const startedFrom = computed(() => JSON.stringify(present.value ?? null))

function fill(): void {
  const now = present.value
  if (form.value.from === startedFrom.value) return
  form.value = {
    gauge: now?.gauge.gauge_id ?? gaugeChoices.value[0]?.value ?? '',
    zeroedOn: now?.zeroed_on ?? 'datum',
    zero: now?.zero_typed ?? '',
    land: now?.land ?? firstLand.value,
    datum: now?.datum ?? '',
    holdDown: now?.hold_down ?? '',
    torque: now?.hold_down_torque_nm === null ? '' : String(Number(now?.hold_down_torque_nm ?? 0) || ''),
    sharedZero: now?.shared_zero ?? true,
    from: startedFrom.value,
  }
  refusal.value = null
}

watch(known, fill)
watch(
  () => props.open,
  (open) => {
    if (open) fill()
  },
)

function leave(): void {
  form.value = { ...EMPTY }
  emit('close')
}

const put = (path: string, text: string) => path === 'zero' && (form.value.zero = text)

function save(confirmed = false): Promise<void> {
  return send(async () => {
    await ask(
      changeSetup({
        path: { job_id: props.jobId },
        body: {
          quantity: props.quantity,
          gauge_id: form.value.gauge,
          land: form.value.land,
          datum: form.value.datum,
          hold_down: form.value.holdDown,
          hold_down_torque: form.value.torque,
          shared_zero: form.value.sharedZero,
          zeroed_on: form.value.zeroedOn,
          zero: stands(form.value.zeroedOn) ? form.value.zero : '',
          bare_unit: bareUnit(props.quantity, unit.value),
          confirmed,
          person_id: personId.value,
        },
      }),
    )
    emit('changed')
    leave()
  })
}
</script>

<template>
  <DialogFrame :open="open" :title="`How ${quantity} is read`" @close="leave">
    <form class="grid gap-3" @submit.prevent="save()">
      <ul v-if="present" class="text-sm">
        <li>
          One reading now: <b class="num">±{{ uncertaintyText(present.expanded_m, unit) }} {{ unit }}</b>
          <template v-if="present.capability">
            ·
            <b :class="CAPABILITY_TONE[present.capability]">{{
              present.capability === 'good'
                ? 'fine enough for this window'
                : present.capability === 'marginal'
                  ? 'just fine enough for this window: repeat near a limit'
                  : 'too coarse for this window: take a finer gauge'
            }}</b>
          </template>
        </li>
        <li v-for="caution in present.cautions" :key="caution" class="text-unsure">{{ caution }}</li>
      </ul>
      <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, save)" />
      <p v-if="lacksOne" class="caution">
        {{
          quantity === 'flange thickness'
            ? 'No micrometer is in the cabinet: a flange is read with one.'
            : `No gauge in the cabinet is made for the ${quantity}.`
        }}
        <RouterLink class="link" :to="{ name: 'shop' }">Put one in the cabinet</RouterLink>
      </p>
      <ChoiceField v-model="form.gauge" label="Gauge" :choices="gaugeChoices" path="gauge_id" />
      <div class="grid gap-3 sm:grid-cols-[1fr_10rem]">
        <ChoiceField v-model="zeroedOn" label="Zeroed on" :choices="ZERO_CHOICES" path="zeroed_on" />
        <TextField
          v-if="stands(form.zeroedOn)"
          v-model="form.zero"
          label="which is"
          path="zero"
          hint="empty: as on the card"
          :bare="bareUnit(quantity, unit)"
        />
      </div>
      <ChoiceField v-model="form.land" label="Land the tip stands on" :choices="landChoices" path="land" />
      <TextField v-model="form.datum" label="Measured from" path="datum" />
      <template v-if="quantity === 'protrusion'">
        <div class="grid grid-cols-[1fr_8rem] gap-3">
          <TextField v-model="form.holdDown" label="Hold-down" path="hold_down" hint="empty: not held down" />
          <TextField v-model="form.torque" label="Torque" path="hold_down_torque" hint="N·m, or 52 lbf·ft" />
        </div>
        <label class="text-sm"
          ><input v-model="form.sharedZero" type="checkbox" /> all holes from one zero of the gauge</label
        >
        <p class="caution">
          Tighten a hold-down evenly, and never beyond its thread. What was read another way opens again:
          readings on another land, or held another way, are never mixed.
        </p>
      </template>
      <button type="submit" class="act justify-self-start">Read this way from now on</button>
    </form>
  </DialogFrame>
</template>
