<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { bringInProbe, type ProbedView, readProbe } from '@/api/generated'
import { newId } from '@/shared/newId'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { onChange, ownChange, refresh } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

/** Bore centres and deck plane from a probe, against the drawing: core shift, centre distance, squareness. */
const props = defineProps<{ jobId: string; invented: boolean }>()
const path = { job_id: props.jobId }
const { data: probed, load } = useLoaded<ProbedView>(() => ask(readProbe({ path })))
onBeforeUnmount(onChange((changed) => (changed === null || changed === props.jobId ? load() : undefined)))
const refusal = ref<Refusal | null>(null)
const fileUnit = ref('mm')
const UNITS = ['mm', 'µm', 'm', 'inch', 'thou'].map((value) => ({ value, label: value }))
async function bringIn(file: File): Promise<void> {
  refusal.value = null
  try {
    await ownChange(props.jobId, async () => {
      const body = { file, probe_id: newId(), person_id: personId.value, unit: fileUnit.value }
      await ask(bringInProbe({ path, body }))
    })
    await refresh(props.jobId)
    await load()
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
const small = (metres: number, signed = false) => lengthText(metres, unit.value, { signed })
/** Over 100 mm, or 4 inches: what a square shows. */
const over = () => (unit.value === 'thou' ? 0.1016 : 0.1)
</script>

<template>
  <details v-if="probed" class="pt-1" :open="probed.bores.length > 0">
    <summary class="min-h-8 cursor-pointer font-bold">Centres by a probe, against the drawing</summary>
    <div class="mt-1 flex flex-wrap items-end gap-3">
      <ChoiceField v-model="fileUnit" label="File in" :choices="UNITS" path="unit" />
      <FileField
        label="File of the probe"
        accept=".csv,.txt,text/csv"
        hint="deck or bore, x, y, z"
        :largest-mb="5"
        @chosen="bringIn"
      />
      <p v-if="invented" class="text-sm text-ink-soft">
        The simulated probe writes
        <a class="link" :href="`/api/jobs/${jobId}/simulated-probe.csv`" download="probe.csv">this block</a>.
      </p>
    </div>
    <RefusalNote v-if="refusal" :refusal="refusal" />
    <template v-if="probed.bores.length">
      <div class="relative overflow-x-auto">
        <table class="mt-2 border-collapse text-sm" aria-label="Bore centres against the drawing">
          <thead>
            <tr class="border-b border-ink-soft text-right text-ink-soft">
              <th scope="col" class="py-1 text-left font-normal">bore</th>
              <th scope="col" class="px-3 font-normal">diameter [{{ SIZE_WITH[unit] }}]</th>
              <th scope="col" class="px-3 font-normal">core shift [{{ unit }}]</th>
              <th scope="col" class="px-3 font-normal">along, across</th>
              <th scope="col" class="px-3 font-normal">
                leans over {{ unit === 'thou' ? '4 in' : '100 mm' }}
              </th>
              <th scope="col" class="px-3 font-normal">to the next, off the drawing</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="bore in probed.bores" :key="bore.hole" class="border-b border-rule text-right">
              <th scope="row" class="py-1 text-left">{{ bore.hole }}</th>
              <td class="num px-3">{{ lengthText(bore.diameter_m, SIZE_WITH[unit]) }}</td>
              <td class="num px-3 font-bold">{{ small(bore.shift_m) }}</td>
              <td class="num px-3">{{ small(bore.shift_x_m, true) }}, {{ small(bore.shift_y_m, true) }}</td>
              <td class="num px-3">{{ small(bore.lean * over()) }}</td>
              <td class="num px-3">
                <template
                  v-for="one in probed.distances.filter((d) => d.holes[0] === bore.hole)"
                  :key="one.holes[1]"
                  >{{ small(one.off_m, true) }} to {{ one.holes[1] }}</template
                >
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="mt-1 text-xs text-ink-soft">
        {{ probed.points }} points by {{ probed.probed_by }}; deck within {{ small(probed.deck_flat_m ?? 0) }}
        {{ unit }}. The drawn row is laid on the centres, turned and moved but not stretched; leans are
        against the deck.
      </p>
    </template>
  </details>
</template>
