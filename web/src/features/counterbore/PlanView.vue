<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type HolePlanView, readHoleBudgets } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { hourText } from '@/shared/format/clock'
import { exactSmall, lengthText, SIZE_WITH, otherSmall, sizeText, smallText } from '@/shared/format/lengths'
import { percentText } from '@/shared/format/others'
import { unit } from '@/shared/state/preferences'
import BudgetButton from '@/shared/ui/BudgetButton.vue'
import SmallLength from '@/shared/ui/SmallLength.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'
import { NUMBER_TONE } from '@/shared/format/tones'

import LedgePicture from './LedgePicture.vue'
import StackBar from './StackBar.vue'

/** The plan with everything it rests on, or the reason why there is none. */
const props = defineProps<{ plan: HolePlanView; holeId: string }>()

const cut = computed(() => props.plan.plan)
const chance = computed(() => {
  const share = cut.value?.chance_by_stop ?? 0
  return percentText(share)
})
const passes = computed(() => {
  if (!cut.value) return ''
  const { passes: whole, part_pass_m: rest, graduation_m: step } = cut.value
  const full = `${whole} × ${exactSmall(step, unit.value)}`
  return rest > 1e-9 ? `${full} and ${exactSmall(rest, unit.value)}` : full
})
const planLimits = computed(() => [cut.value?.least_m ?? null, cut.value?.greatest_m ?? null])
const sentence = (words: string) => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`
const budgets = () => ask(readHoleBudgets({ path: { hole_id: props.holeId } }))
const title = computed(() => `How far the plan of hole ${props.plan.hole} can be trusted`)
</script>

<template>
  <div v-if="cut">
    <p class="py-2 text-2xl font-bold">
      Cut to <span class="num">{{ lengthText(cut.depth_m, SIZE_WITH[unit]) }}</span>
      {{ SIZE_WITH[unit] }} from the deck, fit a
      <span class="num">{{ lengthText(cut.shim_m, SIZE_WITH[unit]) }}</span> {{ SIZE_WITH[unit] }} shim
    </p>
    <p class="num whitespace-normal text-ink-soft" aria-label="The same in the other unit">
      {{ sizeText(cut.depth_m, otherSmall(unit)) }} from the deck,
      {{ sizeText(cut.shim_m, otherSmall(unit)) }} shim:
      {{ smallText(cut.protrusion_m, null, otherSmall(unit), { limits: planLimits }) }}
    </p>
    <p v-for="caution in cut.cautions" :key="caution" class="caution">{{ sentence(caution) }}</p>
    <LedgePicture :plan="plan" :cut="cut" />
    <dl
      class="mt-2 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1 border-t border-rule pt-2 xl:grid-cols-[auto_1fr_auto_1fr]"
    >
      <dt class="text-ink-soft">gives, by the stop</dt>
      <dd>
        <SmallLength class="font-bold" :metres="cut.protrusion_m" :limits="planLimits" with-unit />
        {{ ' '
        }}<BudgetButton
          :expanded="cut.by_stop_expanded_m"
          :title="title"
          what="protrusion by the stop"
          :fetch="budgets"
        />, inside in {{ chance }} of cuts
      </dd>
      <dt class="text-ink-soft">from touch-off</dt>
      <dd>
        <span class="num">{{ exactSmall(cut.from_touch_off_m, unit) }}</span> {{ unit }} on the high spot:
        <span class="num">{{ passes }}</span>
      </dd>
      <dt class="text-ink-soft">once measured</dt>
      <dd>
        known to
        <BudgetButton
          :expanded="cut.by_gauge_expanded_m"
          :title="title"
          what="protrusion once the ledge is measured"
          :fetch="budgets"
        />
      </dd>
      <dt class="text-ink-soft">without the part pass</dt>
      <dd>
        <SmallLength
          :metres="cut.without_part_pass_m"
          :expanded="cut.by_stop_expanded_m"
          :limits="planLimits"
          with-unit
        />
      </dd>
      <dt class="text-ink-soft">window on a shim</dt>
      <dd>
        <span class="num">{{ lengthText(cut.least_m, unit) }}–{{ lengthText(cut.greatest_m, unit) }}</span
        >, aim <span class="num">{{ lengthText(cut.target_m, unit) }}</span> {{ unit }}
      </dd>
      <dt class="text-ink-soft">ledge left</dt>
      <dd v-if="cut.ledge_left_m !== null && cut.ledge_left_expanded_m !== null">
        {{ sizeText(cut.ledge_left_m, unit) }}
        {{ ' '
        }}<BudgetButton
          :expanded="cut.ledge_left_expanded_m"
          :title="title"
          what="ledge left by the stop"
          :fetch="budgets"
        /><template v-if="plan.ledge_least_m !== null"
          >, least {{ sizeText(plan.ledge_least_m, unit) }}</template
        >
      </dd>
      <dd v-else>not on the card</dd>
      <dt class="text-ink-soft">flange of {{ plan.liner_mark }}</dt>
      <dd v-if="plan.flange_m !== null && plan.flange_expanded_m !== null">
        {{ sizeText(plan.flange_m, unit) }}
        {{ ' '
        }}<BudgetButton
          :expanded="plan.flange_expanded_m"
          :title="title"
          :what="`flange of ${plan.liner_mark} at the ${plan.land}`"
          :fetch="budgets"
        />
      </dd>
      <dd v-else>–</dd>
      <dt class="text-ink-soft">shim on the shelf</dt>
      <dd :class="cut.shim_stock === 0 && 'font-bold text-unsure'">
        {{ cut.shim_typed }}:
        {{ cut.shim_stock === 0 ? 'none left, order it first' : `${cut.shim_stock} left` }}
      </dd>
      <template v-for="next in cut.neighbours" :key="next.hole">
        <dt class="text-ink-soft">then to hole {{ next.hole }}</dt>
        <dd :class="next.state && NUMBER_TONE[next.state]">
          <SmallLength :metres="next.difference_m" :limits="[next.limit_m]" />
          {{ ' '
          }}<BudgetButton
            :expanded="next.expanded_m"
            :title="title"
            :what="`difference to hole ${next.hole} by the stop`"
            :fetch="budgets"
          /><template v-if="next.limit_m !== null">, at most {{ lengthText(next.limit_m, unit) }}</template>
          <StateGate v-if="next.state" :state="next.state" class="ml-1 inline align-[-2px]" />
        </dd>
      </template>
    </dl>
    <template v-if="cut.fixed_cuts.length">
      <h2 class="pt-4 text-base">
        The same cut, counted from one place on the ledge instead of from the deck
      </h2>
      <ul class="text-sm">
        <li
          v-for="one in cut.fixed_cuts"
          :key="one.counted_from"
          class="flex gap-4 border-b border-rule py-1"
        >
          <span class="w-40 text-ink-soft">from the {{ one.counted_from }}</span>
          <SmallLength
            class="w-28 text-right"
            :metres="one.protrusion_m"
            :expanded="cut.by_stop_expanded_m"
            :limits="planLimits"
            with-unit
          />
          <span>{{ one.verdict }}</span>
        </li>
      </ul>
    </template>
    <StackBar :cut="cut" />
    <details class="pt-4">
      <summary class="cursor-pointer font-bold">Why: the sums</summary>
      <TrailSteps :steps="cut.trail" />
    </details>
  </div>
  <div v-else>
    <p class="py-3 text-xl font-bold">No cut can be planned: {{ plan.reason }}</p>
    <ul v-if="plan.tried?.length" class="text-sm">
      <li v-for="one in plan.tried" :key="one.shim_m" class="border-b border-rule py-1">
        <b class="num">{{ sizeText(one.shim_m, unit) }}</b> shim: {{ one.what }}
        <span class="num">{{ sizeText(one.value_m, unit) }}</span>, needed
        <span class="num">{{ sizeText(one.needed_m, unit) }}</span>
      </li>
    </ul>
    <ul v-if="plan.positions.length" class="mt-3 flex gap-6">
      <li v-for="one in plan.positions" :key="one.hour">
        {{ hourText(one.hour) }} <span class="num">{{ sizeText(one.present_depth_m, unit) }}</span>
      </li>
    </ul>
  </div>
</template>
