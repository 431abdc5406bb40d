<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type GaugeVersion, listGauges } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import GaugeForm from './GaugeForm.vue'
import NetworkPanel from './NetworkPanel.vue'
import PeopleList from './PeopleList.vue'
import TalkingGauges from './TalkingGauges.vue'

/** Gauges with what can be trusted in them, and the people who read them. */
const { data: gauges, refusal, load } = useLoaded(() => ask(listGauges()))
const edited = ref<GaugeVersion | null>(null)

async function saved(): Promise<void> {
  edited.value = null
  await load()
}
const shown = (um: string | number) =>
  lengthText(Number(um) / 1e6, unit.value, { digits: unit.value === 'thou' ? 2 : 1 })
</script>

<template>
  <main class="mx-auto grid w-full max-w-6xl gap-10 px-5 py-4 lg:grid-cols-[1fr_22rem]">
    <section aria-label="Gauges">
      <h1 class="text-xl">Gauges</h1>
      <RefusalNote :refusal="refusal" />
      <p v-if="gauges?.length === 0" class="py-2">
        No gauge yet. Add the ones that protrusion, depths and flanges are read with.
      </p>
      <table v-else class="w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-2 font-normal">Gauge</th>
            <th scope="col" class="font-normal">kind</th>
            <th scope="col" class="pr-4 text-right font-normal">step [{{ unit }}]</th>
            <th scope="col" class="pr-4 text-right font-normal">repeats within [{{ unit }}]</th>
            <th scope="col" class="font-normal">tip</th>
            <th scope="col"><span class="sr-only">change</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="gauge in gauges ?? []"
            :key="gauge.gauge_id"
            class="border-b border-rule"
            :class="edited?.gauge_id === gauge.gauge_id && 'bg-act-wash'"
          >
            <th scope="row" class="py-2 text-left">
              {{ gauge.name
              }}<span class="block text-xs font-normal text-ink-soft"
                >{{ gauge.note ? `${gauge.note} · ` : '' }}version {{ gauge.version }}</span
              >
            </th>
            <td>{{ gauge.kind }}</td>
            <td class="num pr-4 text-right">{{ shown(gauge.resolution_um) }}</td>
            <td class="num pr-4 text-right">{{ shown(gauge.repeatability_um) }}</td>
            <td>{{ gauge.tip }}</td>
            <td class="text-right">
              <button type="button" class="quiet text-sm" @click="edited = gauge">Change</button>
            </td>
          </tr>
        </tbody>
      </table>
      <TalkingGauges class="mt-8" :gauges="gauges ?? []" />
      <GaugeForm
        :key="edited?.gauge_version_id ?? 'new'"
        class="mt-6"
        :gauge="edited"
        @saved="saved"
        @leave="edited = null"
      />
    </section>
    <div class="grid content-start gap-8">
      <PeopleList />
      <NetworkPanel />
    </div>
  </main>
</template>
