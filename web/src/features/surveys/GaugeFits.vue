<script setup lang="ts">
import { ask } from '@/api/ask'
import { type Capability, type DecisionFitView, listGaugeFits } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { CAPABILITY_TONE } from '@/shared/format/tones'

/** Which gauge of the cabinet is fit for which decision of the card. */
const props = defineProps<{ jobId: string }>()
const { data, refusal } = useLoaded(() => ask(listGaugeFits({ path: { job_id: props.jobId } })))
const WORDS: Record<Capability, string> = { good: 'fit', marginal: 'just fit', 'wrong tool': 'too coarse' }
/** Windows of sizes lie far from nought: only their width matters here. */
function windowText(one: DecisionFitView): string {
  if (one.is_difference) return `up to ${lengthText(one.greatest_m, unit.value)} ${unit.value}`
  const width = `${lengthText(one.greatest_m - one.least_m, unit.value)} ${unit.value} wide`
  if (one.greatest_m < 0.002) return width
  return `${width}, at ${lengthText(one.least_m, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
}
</script>

<template>
  <section aria-label="Which gauge for what">
    <h2 class="text-lg">Which gauge for what</h2>
    <p class="text-sm text-ink-soft">
      Fit up to a tenth of the window on either side, just fit up to a quarter: common practice. Beyond that
      more than half of the window can never be proven.
    </p>
    <RefusalNote :refusal="refusal" />
    <p v-if="data?.length === 0" class="py-2">The card decides nothing yet: give it limits first.</p>
    <div v-if="data?.length" class="relative overflow-x-auto" tabindex="0">
      <table class="mt-2 w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-1 font-normal">decision</th>
            <th scope="col" class="font-normal">window</th>
            <th scope="col" class="font-normal">gauges, the finest first</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in data" :key="one.name" class="border-b border-rule align-top">
            <th scope="row" class="py-1.5 pr-4 text-left font-normal">{{ one.name }}</th>
            <td class="num py-1.5 pr-4">{{ windowText(one) }}</td>
            <td class="py-1.5">
              <span v-if="one.gauges.length === 0" class="text-unsure"
                >none in the cabinet is made for it</span
              >
              <span v-for="gauge in one.gauges" :key="gauge.gauge_id" class="mr-5 inline-block">
                <component :is="gauge.in_use ? 'b' : 'span'">{{ gauge.name }}</component>
                <span class="num ml-1.5">±{{ uncertaintyText(gauge.expanded_m, unit) }}</span>
                <span class="ml-1.5" :class="CAPABILITY_TONE[gauge.capability]">{{
                  WORDS[gauge.capability]
                }}</span>
                <span v-if="gauge.against" class="text-unsure">, {{ gauge.against }}</span>
                <span v-if="gauge.in_use" class="text-ink-soft">, in use</span>
              </span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>
