<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { BudgetView, SourceView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

import DialogFrame from './DialogFrame.vue'
import RefusalNote from './RefusalNote.vue'

/** The budget behind a ±: every source, what it brings, and the same by drawing lots. */
const props = defineProps<{
  open: boolean
  title: string
  /** Which budget to begin with; the first where it is not named. */
  what?: string
  fetch: () => Promise<BudgetView[]>
}>()
const emit = defineEmits<{ close: [] }>()
const { data, refusal } = useLoaded<BudgetView[] | null>(
  () => (props.open ? props.fetch() : Promise.resolve(null)),
  () => props.open,
)
const budgets = computed(() => data.value ?? [])
const chosen = ref(0)
/** More than these are chosen from a list. */
const FEW = 5
const busy = computed(() => data.value === null && refusal.value === null)
const now = computed(() => budgets.value[chosen.value] ?? budgets.value[0])
watch(budgets, (found) => {
  const at = found.findIndex((one) => one.what === props.what)
  chosen.value = Math.max(0, at)
})
const fine = (metres: number) => lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 3 : 2 })
function own(source: SourceView): string {
  if (source.unit === 'm') return ''
  if (source.unit === 'K') return `u = ${source.standard.toFixed(2)} K`
  return `u = ${(source.standard * 1e6).toFixed(2)} µm/m·K`
}
</script>

<template>
  <DialogFrame :open="open" :title="title" @close="emit('close')">
    <RefusalNote :refusal="refusal" />
    <p v-if="busy && budgets.length === 0">Working it out…</p>
    <p v-else-if="budgets.length === 0 && !refusal">
      Nothing is read yet: the budget follows from the gauge and its set.
    </p>
    <label v-if="budgets.length > FEW" class="text-sm text-ink-soft"
      >of what
      <select v-model="chosen" class="field" aria-label="Of what">
        <option v-for="(one, index) in budgets" :key="one.what" :value="index">{{ one.what }}</option>
      </select>
    </label>
    <nav v-else-if="budgets.length > 1" class="flex flex-wrap gap-x-5 gap-y-1" aria-label="Of what">
      <button
        v-for="(one, index) in budgets"
        :key="one.what"
        type="button"
        class="min-h-9"
        :class="index === chosen ? 'border-b-3 border-act font-bold' : 'text-ink-soft'"
        :aria-pressed="index === chosen"
        @click="chosen = index"
      >
        {{ one.what }}
      </button>
    </nav>
    <template v-if="now">
      <table class="mt-3 w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-1 font-normal">source</th>
            <th scope="col" class="pr-3 text-right font-normal">brings [{{ unit }}]</th>
            <th scope="col" class="w-32 font-normal">share</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="source in now.sources" :key="source.name" class="border-b border-rule align-top">
            <th scope="row" class="py-1.5 pr-3 text-left font-normal">
              {{ source.name }}
              <span class="block text-xs text-ink-soft">{{
                [
                  own(source),
                  source.shape === 'rectangular' ? 'rectangular' : '',
                  source.basis,
                  source.shared ? 'shared with other readings' : '',
                ]
                  .filter(Boolean)
                  .join(' · ')
              }}</span>
            </th>
            <td class="num py-1.5 pr-3 text-right">{{ fine(source.contribution_m) }}</td>
            <td class="py-1.5">
              <span class="flex items-center gap-2"
                ><span class="h-3 bg-part" :style="{ width: `${Math.max(2, source.share * 70)}px` }" />
                <span class="num text-sm">{{ Math.round(source.share * 100) }} %</span></span
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p class="pt-3">
        Together <b class="num">{{ fine(now.standard_m) }}</b>, times {{ now.coverage.toFixed(2) }}:
        <b class="num text-lg">±{{ fine(now.expanded_m) }} {{ unit }}</b>
      </p>
      <p v-for="bound in now.bounds" :key="bound.name" class="text-sm">
        Added to it as it is, for it is no scatter: {{ bound.name }},
        <b class="num">{{ fine(bound.half_width_m) }}</b>
      </p>
      <p v-if="now.bias_m > 0" class="text-sm">
        Where there is nothing to be found, scatter alone shows <b class="num">{{ fine(now.bias_m) }}</b> of
        it; the ± covers that.
      </p>
      <p class="text-sm text-ink-soft">
        Drawing every source {{ '200,000' }} times, 95 % lie within
        <span class="num">±{{ fine(now.monte_carlo_m) }}</span
        >:
        <span class="num">{{ fine(Math.abs(now.expanded_m - now.monte_carlo_m)) }}</span>
        {{ now.expanded_m >= now.monte_carlo_m ? 'less' : 'more' }} than the rule of the Guide gives.
      </p>
    </template>
  </DialogFrame>
</template>
