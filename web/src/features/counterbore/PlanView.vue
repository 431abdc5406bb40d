<script setup lang="ts">
import { computed } from 'vue'

import type { HolePlanView } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { exactSmall, lengthText, SIZE_WITH, sizeText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import SmallLength from '@/shared/ui/SmallLength.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'

import LedgePicture from './LedgePicture.vue'

/** The plan with everything it rests on, or the reason why there is none. */
const props = defineProps<{ plan: HolePlanView }>()

const chance = computed(() => {
  const share = props.plan.chance_by_stop
  if (share === null || share === undefined) return ''
  return share > 0.995 ? 'above 99 %' : `${(100 * share).toFixed(0)} %`
})
const passes = computed(() => {
  const { passes: whole, part_pass_m: rest, graduation_m: step } = props.plan
  if (typeof whole !== 'number' || typeof step !== 'number') return ''
  const full = `${whole} × ${exactSmall(step, unit.value)}`
  return rest && rest > 1e-9 ? `${full} and ${exactSmall(rest, unit.value)}` : full
})
const overNeighbour = (difference: number) =>
  typeof props.plan.neighbour_limit_m === 'number' &&
  Math.abs(difference) > props.plan.neighbour_limit_m + 1e-12
const byStop = computed(() => props.plan.by_stop_expanded_m ?? null)
const planLimits = computed(() => [props.plan.least_m ?? null, props.plan.greatest_m ?? null])
</script>

<template>
  <div v-if="plan.feasible && typeof plan.depth_m === 'number' && typeof plan.shim_m === 'number'">
    <p class="py-2 text-2xl font-bold">
      Cut to <span class="num">{{ lengthText(plan.depth_m, SIZE_WITH[unit]) }}</span>
      {{ SIZE_WITH[unit] }} from the deck, fit a
      <span class="num">{{ lengthText(plan.shim_m, SIZE_WITH[unit]) }}</span> {{ SIZE_WITH[unit] }} shim
    </p>
    <LedgePicture :plan="plan" />
    <dl
      class="mt-2 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1 border-t border-rule pt-2 xl:grid-cols-[auto_1fr_auto_1fr]"
    >
      <dt class="text-ink-soft">gives, by the stop</dt>
      <dd>
        <SmallLength
          class="font-bold"
          :metres="plan.protrusion_m ?? 0"
          :expanded="byStop"
          :limits="planLimits"
          with-unit
        />, inside in {{ chance }} of cuts
      </dd>
      <dt class="text-ink-soft">from touch-off</dt>
      <dd>
        <span class="num">{{ exactSmall(plan.from_touch_off_m ?? 0, unit) }}</span> {{ unit }} on the high
        spot:
        <span class="num">{{ passes }}</span>
      </dd>
      <dt class="text-ink-soft">once measured</dt>
      <dd>
        known to <span class="num">±{{ uncertaintyText(plan.by_gauge_expanded_m ?? 0, unit) }}</span>
        {{ unit }}
      </dd>
      <dt class="text-ink-soft">without the part pass</dt>
      <dd>
        <SmallLength
          v-if="typeof plan.without_part_pass_m === 'number'"
          :metres="plan.without_part_pass_m"
          :expanded="byStop"
          :limits="planLimits"
          with-unit
        />
        <template v-else>whole passes only</template>
      </dd>
      <dt class="text-ink-soft">window on a shim</dt>
      <dd>
        <span class="num"
          >{{ lengthText(plan.least_m ?? 0, unit) }}–{{ lengthText(plan.greatest_m ?? 0, unit) }}</span
        >, aim <span class="num">{{ lengthText(plan.target_m ?? 0, unit) }}</span> {{ unit }}
      </dd>
      <dt class="text-ink-soft">ledge left</dt>
      <dd>
        {{
          typeof plan.ledge_left_m === 'number'
            ? sizeText(plan.ledge_left_m, unit, plan.ledge_left_expanded_m)
            : 'not on the card'
        }}<template v-if="typeof plan.ledge_least_m === 'number'"
          >, least {{ sizeText(plan.ledge_least_m, unit) }}</template
        >
      </dd>
      <dt class="text-ink-soft">flange of {{ plan.liner_mark }}</dt>
      <dd>
        {{ typeof plan.flange_m === 'number' ? sizeText(plan.flange_m, unit, plan.flange_expanded_m) : '–' }}
      </dd>
      <dt class="text-ink-soft">shim on the shelf</dt>
      <dd :class="plan.shim_stock === 0 && 'font-bold text-unsure'">
        {{ plan.shim_typed }}:
        {{ plan.shim_stock === 0 ? 'none left, order it first' : `${plan.shim_stock} left` }}
      </dd>
      <template v-for="next in plan.neighbours ?? []" :key="next.hole">
        <dt class="text-ink-soft">then to hole {{ next.hole }}</dt>
        <dd :class="overNeighbour(next.difference_m) && 'font-bold text-out'">
          <SmallLength
            :metres="next.difference_m"
            :expanded="next.expanded_m"
            :limits="[plan.neighbour_limit_m ?? null]"
            with-unit
          /><template v-if="typeof plan.neighbour_limit_m === 'number'"
            >, at most {{ lengthText(plan.neighbour_limit_m, unit) }}</template
          >
        </dd>
      </template>
    </dl>
    <template v-if="plan.fixed_cuts?.length">
      <h2 class="pt-4 text-base">
        The same cut, counted from one place on the ledge instead of from the deck
      </h2>
      <ul class="text-sm">
        <li
          v-for="one in plan.fixed_cuts"
          :key="one.counted_from"
          class="flex gap-4 border-b border-rule py-1"
        >
          <span class="w-40 text-ink-soft">from the {{ one.counted_from }}</span>
          <SmallLength
            class="w-28 text-right"
            :metres="one.protrusion_m"
            :expanded="byStop"
            :limits="planLimits"
            with-unit
          />
          <span>{{ one.verdict }}</span>
        </li>
      </ul>
    </template>
    <details class="pt-4">
      <summary class="cursor-pointer font-bold">Why: the sums</summary>
      <TrailSteps :steps="plan.trail ?? []" />
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
