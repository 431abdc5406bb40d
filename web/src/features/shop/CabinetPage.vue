<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import {
  listGauges,
  listGaugeServices,
  listMaterials,
  listSettingMasters,
  type SettingMaster,
} from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { dayText } from '@/shared/format/time'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'

import MasterForm from './MasterForm.vue'
import MaterialTable from './MaterialTable.vue'
import RoomForm from './RoomForm.vue'
import ServiceForm from './ServiceForm.vue'
import ThermometerPanel from './ThermometerPanel.vue'
import TravellingMaster from './TravellingMaster.vue'

/** What gauges are set on, when everything is due, and what was done to the gauges. */
const masters = useLoaded(() => ask(listSettingMasters()))
const services = useLoaded(() => ask(listGaugeServices()))
const gauges = useLoaded(() => ask(listGauges()))
const materials = useLoaded(() => ask(listMaterials()))
const edited = ref<SettingMaster | null>(null)
const today = dayText()
const size = (um: string | number) =>
  lengthText(Number(um) / 1e6, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 5 : 4 })
const within = (um: string | number) =>
  lengthText((2 * Number(um)) / 1e6, unit.value, { digits: unit.value === 'thou' ? 3 : 1 })
const name = (gaugeId: string) =>
  gauges.data.value?.find((one) => one.gauge_id === gaugeId)?.name ?? 'a gauge'

/** Everything with a day on which it is due, the nearest first; a lent gauge is away until it is brought back. */
const due = computed(() =>
  [
    ...(gauges.data.value ?? []).map((one) => ({ what: one.name, on: one.due_on ?? '' })),
    ...(masters.data.value ?? []).map((one) => ({ what: one.name, on: one.due_on ?? '' })),
  ]
    .filter((one) => one.on !== '')
    .sort((a, b) => a.on.localeCompare(b.on)),
)
const overdue = computed(() => due.value.filter((one) => one.on < today))
const away = computed(() =>
  (gauges.data.value ?? []).filter((gauge) => {
    const last = services.data.value?.find(
      (one) => one.gauge_id === gauge.gauge_id && /lent|brought back/.test(one.kind),
    )
    return last?.kind === 'lent'
  }),
)
async function saved(): Promise<void> {
  edited.value = null
  await masters.load()
}
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-3">
    <ShopNav />
    <div class="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_24rem]">
      <section aria-label="Setting masters">
        <h1 class="text-xl">What gauges are set on</h1>
        <RefusalNote :refusal="masters.refusal.value" />
        <p v-if="overdue.length || away.length" class="py-1 text-unsure">
          <template v-if="overdue.length"
            >Overdue: {{ overdue.map((one) => `${one.what} (${one.on})`).join(', ') }}.
          </template>
          <template v-if="away.length"
            >Lent and not back: {{ away.map((one) => one.name).join(', ') }}.</template
          >
        </p>
        <p v-if="masters.data.value?.length === 0" class="py-2">
          No master yet. Add the rings, rods and blocks that gauges are set on, with what their certificates
          say.
        </p>
        <div v-else-if="masters.data.value" class="relative overflow-x-auto" tabindex="0">
          <table class="w-full border-collapse">
            <thead>
              <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
                <th scope="col" class="py-2 font-normal">Master</th>
                <th scope="col" class="pr-4 text-right font-normal">size at 20 °C [{{ SIZE_WITH[unit] }}]</th>
                <th scope="col" class="pr-4 text-right font-normal">± [{{ unit }}]</th>
                <th scope="col" class="pr-4 font-normal">material</th>
                <th scope="col" class="pr-4 font-normal">checked, due</th>
                <th scope="col"><span class="sr-only">change</span></th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="one in masters.data.value"
                :key="one.setting_master_id"
                class="border-b border-rule align-top"
                :class="edited?.setting_master_id === one.setting_master_id && 'bg-act-wash'"
              >
                <th scope="row" class="py-2 pr-4 text-left">
                  {{ one.name }}
                  <span class="block text-xs font-normal text-ink-soft">{{
                    [
                      one.typed,
                      one.note,
                      one.owner ? `belongs to ${one.owner}` : '',
                      `version ${one.version}`,
                    ]
                      .filter(Boolean)
                      .join(' · ')
                  }}</span>
                </th>
                <td class="num py-2 pr-4 text-right">{{ size(one.size_um) }}</td>
                <td class="num py-2 pr-4 text-right">{{ within(one.standard_um) }}</td>
                <td class="py-2 pr-4">{{ one.material }}</td>
                <td class="num py-2 pr-4">
                  {{ one.calibrated_on ?? 'no record' }}
                  <span v-if="one.due_on" class="block" :class="one.due_on < today && 'text-unsure'">{{
                    one.due_on
                  }}</span>
                </td>
                <td class="py-2 text-right">
                  <button
                    type="button"
                    class="quiet text-sm"
                    :aria-label="`Change ${one.name}`"
                    @click="edited = one"
                  >
                    Change
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <TravellingMaster :masters="masters.data.value ?? []" :gauges="gauges.data.value ?? []" />
        <h2 class="pt-6 text-lg">What was done to the gauges</h2>
        <p v-if="services.data.value?.length === 0" class="py-1 text-ink-soft">Nothing is noted yet.</p>
        <ul>
          <li
            v-for="one in services.data.value ?? []"
            :key="one.gauge_service_id"
            class="grid gap-x-3 border-b border-rule py-1.5 lg:grid-cols-[7rem_11rem_1fr]"
          >
            <span class="num">{{ one.done_on }}</span>
            <b>{{ name(one.gauge_id) }}</b>
            <span
              >{{ [one.kind, one.words].filter(Boolean).join(': ') }}
              <span class="text-ink-soft">{{ one.noted_by }}</span></span
            >
          </li>
        </ul>
        <MaterialTable :materials="materials.data.value ?? []" @saved="materials.load()" />
      </section>
      <div class="grid content-start gap-8">
        <MasterForm
          :key="edited?.setting_master_version_id ?? 'new'"
          :master="edited"
          :materials="materials.data.value ?? []"
          @saved="saved"
          @leave="edited = null"
        />
        <ServiceForm :gauges="gauges.data.value ?? []" @saved="services.load()" />
        <ThermometerPanel />
        <RoomForm />
      </div>
    </div>
  </main>
</template>
