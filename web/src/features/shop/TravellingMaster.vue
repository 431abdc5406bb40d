<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type GaugeVersion, listMasterReadings, readSettingMaster, type SettingMaster } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { newId } from '@/shared/newId'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A master that goes round: every gauge, here and in other shops, read on it. Gauges compare over it. */
const props = defineProps<{ masters: SettingMaster[]; gauges: GaugeVersion[] }>()
const { data, load } = useLoaded(() => ask(listMasterReadings()))
const master = ref('')
const gauge = ref('')
const shop = ref('')
const text = ref('')
const { refusal, send } = useForm()
const choose = { value: '', label: 'choose' }
const masterChoices = computed(() => [
  choose,
  ...props.masters.map((one) => ({ value: one.setting_master_id, label: one.name })),
])
const gaugeChoices = computed(() => [
  choose,
  ...props.gauges.map((one) => ({ value: one.gauge_id, label: one.name })),
])
const nameOf = (id: string) => props.masters.find((one) => one.setting_master_id === id)?.name ?? ''
const small = (um: string | number) =>
  lengthText(Number(um) / 1e6, unit.value, { digits: unit.value === 'thou' ? 2 : 1, signed: true })

function save(): Promise<void> {
  return send(async () => {
    const body = {
      reading_id: newId(),
      gauge_id: gauge.value,
      shop: shop.value,
      text: text.value,
      bare_unit: SIZE_WITH[unit.value],
      person_id: personId.value,
    }
    await ask(readSettingMaster({ path: { setting_master_id: master.value }, body }))
    text.value = ''
    await load()
  })
}
</script>

<template>
  <section aria-label="Masters read with gauges">
    <h2 class="pt-6 text-lg">Masters read with gauges</h2>
    <p class="text-sm text-ink-soft">
      Send one master round: gauges of different owners are compared only over it. [{{ unit }}] off its own
      size.
    </p>
    <ul>
      <li
        v-for="one in data ?? []"
        :key="one.master_reading_id"
        class="grid gap-x-3 border-b max-lg:grid-cols-[1fr_auto] lg:grid-cols-[9rem_12rem_1fr_auto] border-rule py-1.5"
      >
        <b>{{ nameOf(one.setting_master_id) }}</b>
        <span
          >{{ one.gauge }}<span v-if="one.shop" class="text-ink-soft">, {{ one.shop }}</span></span
        >
        <span :class="one.agrees ? 'text-in' : 'text-out'">{{
          one.agrees ? 'agrees' : 'is off: have it checked'
        }}</span>
        <span class="num">{{ small(one.off_um) }} ±{{ small(one.expanded_um).replace('+', '') }}</span>
      </li>
    </ul>
    <form class="mt-2 flex flex-wrap items-end gap-3" aria-label="Read a master" @submit.prevent="save">
      <div class="w-40">
        <ChoiceField v-model="master" label="Master" :choices="masterChoices" path="setting_master_id" />
      </div>
      <div class="w-44">
        <ChoiceField v-model="gauge" label="Gauge" :choices="gaugeChoices" path="gauge_id" />
      </div>
      <div class="w-36"><TextField v-model="text" label="shows" :bare="SIZE_WITH[unit]" path="text" /></div>
      <div class="w-44"><TextField v-model="shop" label="in the shop of" path="shop" hint="" /></div>
      <button type="submit" class="quiet min-h-11" :disabled="!master || !gauge || !text.trim()">
        Note it
      </button>
    </form>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
