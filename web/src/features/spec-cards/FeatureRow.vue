<script setup lang="ts">
import { computed, ref } from 'vue'

import { perSide } from '@/shared/format/lengths'
import { featureOf } from '@/shared/state/catalogue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import { bareOf, type LimitName, type LimitStatus, type SheetDraft, STATUSES, useCard } from './cardDraft'

/** One feature on the card: limits with what they are known from, and where it is read. */
const props = defineProps<{ index: number }>()
const row = defineModel<SheetDraft>('row', { required: true })
const emit = defineEmits<{ propose: []; remove: [] }>()
const draft = useCard()
const path = computed(() => `features.${props.index}`)
const quantity = computed(() => row.value.sheet.quantity)
const feature = computed(() => featureOf(quantity.value))
const limits = computed<[LimitName, string, boolean][]>(() =>
  (feature.value?.limits ?? []).map((one) => [one.field as LimitName, one.label, one.is_size]),
)
function typed(name: LimitName): string {
  return row.value.sheet[name]?.length?.typed ?? ''
}
function type(name: LimitName, text: string | number | null): void {
  const before = row.value.sheet[name]
  const value = String(text ?? '').trim()
  row.value.sheet[name] = {
    source: before?.source || (told.value?.source ?? ''),
    status: before?.status ?? told.value?.status ?? 'unverified',
    length: value === '' ? null : { typed: value },
  }
}
/** Limits that are known from the same place; an empty one goes with the first. */
interface Told {
  names: LimitName[]
  labels: string
  source: string
  status: LimitStatus
}
const groups = computed<Told[]>(() => {
  const found = new Map<string, Told>()
  const sheet = row.value.sheet
  const first = limits.value.map(([name]) => sheet[name]).find((one) => one?.length || one?.source)
  for (const [name, label] of limits.value) {
    const limit = sheet[name]?.length || sheet[name]?.source ? sheet[name] : first
    const [source, status] = [limit?.source ?? '', limit?.status ?? 'unverified']
    const known = found.get(`${status} ${source}`)
    if (known) {
      known.names.push(name)
      known.labels += `, ${label.toLowerCase()}`
    } else found.set(`${status} ${source}`, { names: [name], labels: label, source, status })
  }
  return [...found.values()]
})
const told = computed(() => groups.value[0])
function tell(group: Told, words: { source?: string; status?: LimitStatus }): void {
  for (const name of group.names) {
    const length = row.value.sheet[name]?.length ?? null
    row.value.sheet[name] = { length, source: group.source, status: group.status, ...words }
  }
}
/** Out of round and taper are told on the diameter, or per side: then they are doubled. */
const hasForm = computed(() => limits.value.some(([name]) => name === 'taper'))
const FORMS = ['out_of_round', 'taper'] as const
const SIDES = [
  { value: '', label: 'on the diameter' },
  { value: ' per side', label: 'per side, doubled' },
]
/** Chosen before a number is typed it is remembered here; afterwards the text says it. */
const wanted = ref('')
const side = computed({
  get: () => {
    const said = FORMS.map((name) => typed(name)).filter((text) => text !== '')
    return said.length > 0
      ? (said.map((text) => perSide(text)[1]).find((one) => one !== '') ?? '')
      : wanted.value
  },
  set: (chosen) => {
    wanted.value = chosen
    for (const name of FORMS) if (typed(name)) type(name, perSide(typed(name))[0] + chosen)
  },
})
function typeForm(name: LimitName, text: string | number | null): void {
  const [number, said] = perSide(String(text ?? ''))
  type(name, number.trim() === '' ? '' : `${number}${said || side.value}`)
}
const isForm = (name: LimitName) => name === 'out_of_round' || name === 'taper'
const isGrid = computed(() => feature.value?.pattern === 'grid')
const isOnce = computed(() => feature.value?.pattern === 'one place')
const unit = computed(() => draft.value.card.unit)
</script>

<template>
  <div class="grid items-start gap-x-3 gap-y-1 sm:grid-cols-[10rem_1fr_auto]">
    <b class="pt-7">{{ quantity[0]?.toUpperCase() }}{{ quantity.slice(1) }}</b>
    <div class="grid gap-2">
      <div class="grid grid-cols-2 gap-2 sm:grid-cols-5">
        <TextField
          v-for="[name, label, isSize] in limits"
          :key="name"
          :model-value="isForm(name) ? perSide(typed(name))[0] : typed(name)"
          :label="label"
          :path="`${path}.${name}`"
          :bare="bareOf(isSize, unit)"
          :side="perSide(typed(name))[1]"
          @update:model-value="isForm(name) ? typeForm(name, $event) : type(name, $event)"
        />
      </div>
      <div v-for="group in groups" :key="group.names[0]" class="grid gap-2 sm:grid-cols-[1fr_11rem]">
        <TextField
          :model-value="group.source"
          :label="groups.length > 1 ? `Source: ${group.labels}` : 'Source'"
          :path="`${path}.${group.names[0]}.source`"
          @update:model-value="tell(group, { source: String($event ?? '') })"
        />
        <ChoiceField
          :model-value="group.status"
          label="Known from"
          :choices="STATUSES"
          :path="`${path}.${group.names[0]}.status`"
          @update:model-value="tell(group, { status: $event as LimitStatus })"
        />
      </div>
      <div v-if="hasForm" class="w-52">
        <ChoiceField v-model="side" label="Out of round, taper" :choices="SIDES" />
      </div>
      <div v-if="isGrid" class="grid gap-2 sm:grid-cols-2">
        <TextField
          v-model="row.along"
          :label="`Points along the deck [${unit}]`"
          :path="`${path}.along`"
          list
        />
        <TextField
          v-model="row.across"
          :label="`Points across it, 0 on the crank line [${unit}]`"
          :path="`${path}.across`"
          list
        />
      </div>
      <div v-else-if="!isOnce" class="grid gap-2 sm:grid-cols-[2fr_1fr]">
        <TextField
          v-model="row.levels"
          :label="`Levels, such as top 15, middle 90 [${unit}]`"
          :path="`${path}.levels`"
          list
        />
        <TextField
          v-if="feature?.pattern === 'levels and axes'"
          v-model="row.axes"
          label="Axes [°]"
          :path="`${path}.axes_deg`"
          list
        />
        <TextField
          v-if="feature?.pattern === 'levels and clock'"
          v-model="row.hours"
          label="Clock positions [h]"
          :path="`${path}.hours`"
          list
        />
      </div>
    </div>
    <div class="grid gap-2 pt-5">
      <button v-if="!isOnce" type="button" class="quiet text-sm" @click="emit('propose')">
        Propose a plan
      </button>
      <button type="button" class="quiet text-sm" :aria-label="`Remove ${quantity}`" @click="emit('remove')">
        Remove
      </button>
    </div>
  </div>
</template>
