<script setup lang="ts">
import { onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { type FeatureView, listFeatures, type PartView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { digitsFor, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import SourceBadge from '@/shared/ui/SourceBadge.vue'

import GaugeFits from './GaugeFits.vue'

/** Everything that is measured of this engine: each feature with its parts, what is read and what is missing. */
const job = useJob()
const { data, refusal, load } = useLoaded(() => ask(listFeatures({ path: { job_id: job.jobId } })))
onBeforeUnmount(onChange((changed) => void ((changed === null || changed === job.jobId) && load())))

function sizeOf(feature: FeatureView, metres: number): string {
  const step = Number(feature.setup?.gauge.resolution_um ?? 0) / 1e6
  return lengthText(metres, SIZE_WITH[unit.value], { digits: digitsFor(step, SIZE_WITH[unit.value]) })
}
function patternWords(feature: FeatureView): string {
  const { levels, axes_deg, along_m, across_m } = feature.pattern
  if (along_m.length) return `${along_m.length} × ${across_m.length} points`
  if (levels.length && axes_deg.length)
    return `${levels.length} ${levels.length === 1 ? 'level' : 'levels'} × ${axes_deg.length} axes`
  return levels.length ? `${levels.length} levels` : 'one place'
}
function found(feature: FeatureView, part: PartView): string {
  if (part.read === 0) return part.can_read ? 'not read' : part.reason
  if (part.out_of_round_m != null && feature.is_size)
    return `${sizeOf(feature, part.least_m ?? 0)} to ${sizeOf(feature, part.greatest_m ?? 0)}, ${lengthText(part.out_of_round_m, unit.value)} out of round`
  if (part.greatest_m == null) return ''
  return feature.is_size
    ? sizeOf(feature, part.greatest_m)
    : `${lengthText(part.least_m ?? 0, unit.value, { signed: true })} to ${lengthText(part.greatest_m, unit.value, { signed: true })}`
}
/** A feature of which nothing is read takes one line: its parts by name, and what stands in the way of reading them. */
const isUntouched = (feature: FeatureView) => feature.parts.every((part) => part.read === 0)
const inTheWay = (feature: FeatureView) => [
  ...new Set(feature.parts.filter((part) => !part.can_read).map((part) => part.reason)),
]
const how = (feature: FeatureView) => {
  const setup = feature.setup
  if (!setup) return 'no gauge chosen yet'
  return [
    setup.gauge.name,
    setup.master
      ? `set on ${setup.master}`
      : setup.zeroed_on === 'datum'
        ? ''
        : `zeroed on the ${setup.zeroed_on}`,
    setup.load,
  ]
    .filter(Boolean)
    .join(', ')
}
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-4">
    <h1 class="text-xl">Measuring {{ job.block.value?.job.name }}</h1>
    <p class="text-sm text-ink-soft">
      Sizes in {{ SIZE_WITH[unit] }}, differences in {{ unit }}. Protrusion and the ledge are read at the
      <RouterLink class="link" :to="{ name: 'bench', params: { job: job.jobId, lens: 'protrusion' } }"
        >bench of the block</RouterLink
      >, or
      <RouterLink class="link" :to="{ name: 'grid', params: { job: job.jobId } }"
        >all holes at once</RouterLink
      >, flanges with the
      <RouterLink class="link" :to="{ name: 'liners', params: { job: job.jobId } }">liners</RouterLink>. What
      was seen without a gauge stands in the
      <RouterLink class="link" :to="{ name: 'strip-record', params: { job: job.jobId } }"
        >strip record</RouterLink
      >.
    </p>
    <RefusalNote :refusal="refusal" />
    <p v-if="!data && !refusal" class="py-4 text-ink-soft">Loading the features …</p>
    <div v-if="data" class="relative overflow-x-auto" tabindex="0">
      <table class="mt-3 w-full border-collapse">
        <thead class="sr-only">
          <tr>
            <th scope="col">Feature</th>
            <th scope="col">Parts</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="feature in data.features"
            :id="feature.quantity"
            :key="feature.quantity"
            class="border-t border-rule align-top"
          >
            <th scope="row" class="w-64 py-2 pr-4 text-left">
              <span class="text-lg"
                >{{ feature.quantity[0]?.toUpperCase() }}{{ feature.quantity.slice(1) }}</span
              >
              <span class="block text-sm font-normal text-ink-soft"
                >{{ patternWords(feature) }}{{ feature.pattern.on_card ? '' : ', proposed' }}
                <SourceBadge v-if="!feature.pattern.on_card" status="common practice"
              /></span>
              <span class="block text-sm font-normal text-ink-soft">{{ how(feature) }}</span>
            </th>
            <td class="py-2">
              <p v-if="feature.parts.length === 0" class="text-sm text-ink-soft">
                {{
                  feature.part_kind === 'main bore'
                    ? 'The card does not say how many main bores there are.'
                    : 'None in this job yet.'
                }}
              </p>
              <div v-else-if="isUntouched(feature)" class="flex flex-wrap items-center gap-x-2 gap-y-1">
                <RouterLink
                  v-for="part in feature.parts"
                  :key="part.key"
                  :to="{
                    name: 'survey',
                    params: { job: job.jobId, quantity: feature.quantity, part: part.key },
                  }"
                  class="flex min-h-11 items-center gap-2 rounded border border-rule px-2 hover:border-ink-soft"
                >
                  <StateGate :state="part.state" />
                  <b>{{ part.title }}</b>
                  <span class="num text-sm text-ink-soft">0/{{ part.of }}</span>
                </RouterLink>
                <span v-for="reason in inTheWay(feature)" :key="reason" class="text-sm text-ink-soft">{{
                  reason
                }}</span>
              </div>
              <ul v-else class="grid grid-cols-1 gap-x-4 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
                <li v-for="part in feature.parts" :key="part.key">
                  <RouterLink
                    :to="{
                      name: 'survey',
                      params: { job: job.jobId, quantity: feature.quantity, part: part.key },
                    }"
                    class="grid min-h-11 grid-cols-[26px_1fr_auto] items-center gap-2 rounded border border-rule px-2 py-1 hover:border-ink-soft"
                  >
                    <StateGate :state="part.state" />
                    <span
                      ><b>{{ part.title }}</b>
                      <span class="block text-sm text-ink-soft">{{ found(feature, part) }}</span></span
                    >
                    <span class="num text-sm text-ink-soft">{{ part.read }}/{{ part.of }}</span>
                  </RouterLink>
                </li>
              </ul>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <GaugeFits :job-id="job.jobId" class="mt-8" />
  </main>
</template>
