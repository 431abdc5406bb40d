<script setup lang="ts">
import type { BlockPlansView, BlockPlanView, PlanRule } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { percentText } from '@/shared/format/others'
import { unit } from '@/shared/state/preferences'

/** The three rules side by side: what each does, what it costs, what stays open. */
const props = defineProps<{ plans: BlockPlansView }>()
const rule = defineModel<PlanRule>({ required: true })
const TITLES: Record<PlanRule, string> = {
  'only those outside': 'Only those outside',
  best: 'Best',
  'all to one depth': 'All to one depth',
}
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
const small = (metres: number) => `${exactSmall(metres, unit.value)} ${unit.value}`
function said(plan: BlockPlanView): string {
  const [count, holes] = [plan.order.length, plan.order.length === 1 ? 'hole' : 'holes']
  if (count === 0) return 'nothing is cut'
  if (plan.depth_m !== null) return `${count} ${holes} to ${size(plan.depth_m)}`
  return `${holes} ${[...plan.order].sort((a, b) => a - b).join(', ')}`
}
const count = (plan: BlockPlanView) =>
  ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'][plan.order.length] ??
  plan.order.length
const shims = (plan: BlockPlanView) =>
  plan.shims.map((one) => `${one.count} × ${lengthText(one.size_m, SIZE_WITH[unit.value])}`).join(', ')
const order = (plan: BlockPlanView) => plan.shims.reduce((sum, one) => sum + one.to_order, 0)
const open = (plan: BlockPlanView) => plan.holes.filter((one) => one.why_open)
const price = (plan: BlockPlanView) =>
  plan.price > 0 ? `${plan.price.toFixed(2)} ${props.plans.currency} and ` : ''
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="w-full text-left" aria-label="Three rules side by side">
      <thead>
        <tr class="align-top">
          <th class="w-36"><span class="sr-only">what</span></th>
          <th
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="border-t-4 px-2 pt-1 font-normal"
            :class="plan.rule === rule ? 'border-ink bg-act-wash' : 'border-rule'"
          >
            <label class="flex min-h-11 cursor-pointer items-baseline gap-2">
              <input v-model="rule" type="radio" name="rule" :value="plan.rule" class="size-4 shrink-0" />
              <span
                ><b class="text-lg">{{ TITLES[plan.rule] }}</b>
                <span class="block text-sm text-ink-soft">{{ said(plan) }}</span></span
              >
            </label>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr class="border-y border-rule">
          <th class="py-1 font-normal text-ink-soft">each hole, % in</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            <span class="inline-flex flex-wrap items-center gap-x-2">
              <template v-for="one in plan.holes" :key="one.hole">
                <b v-if="one.cut" class="num" :title="`hole ${one.hole}, by the stop`">{{
                  percentText(one.cut.chance).replace(' %', '')
                }}</b>
                <StateGate
                  v-else
                  :state="one.why_open && one.state === 'in' ? 'cannot tell' : one.state"
                  :title="`hole ${one.hole}: ${one.state}`"
                  class="h-4"
                />
              </template>
            </span>
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th class="py-1 font-normal text-ink-soft">all inside</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            <template v-if="plan.order.length"
              ><b class="num">{{ percentText(plan.all_inside) }}</b> of cuts
              <span v-if="plan.rule === 'all to one depth'" class="text-sm text-ink-soft"
                >one setting: they move together</span
              ></template
            ><template v-else>–</template>
          </td>
        </tr>
        <tr v-if="plans.neighbour_m !== null" class="border-b border-rule">
          <th class="py-1 font-normal text-ink-soft">neighbours apart</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            <template v-if="plan.greatest_apart_m !== null"
              ><b class="num">{{ small(plan.greatest_apart_m) }}</b> of
              {{ lengthText(plans.neighbour_m, unit) }}</template
            ><template v-else>–</template>
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th class="py-1 font-normal text-ink-soft">ledge spent</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            <b class="num">{{ size(plan.ledge_spent_m) }}</b> in {{ count(plan) }}
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th class="py-1 font-normal text-ink-soft">shims</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            <span class="num">{{ shims(plan) || 'none' }}</span><template v-if="plan.shims.length"
              >,
              <span :class="order(plan) ? 'font-bold text-unsure' : 'text-ink-soft'">{{
                order(plan) ? `order ${order(plan)}` : 'on the shelf'
              }}</span></template
            >
          </td>
        </tr>
        <tr class="border-b border-rule">
          <th class="py-1 font-normal text-ink-soft">shims and work</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            {{ price(plan) }}<b class="num">{{ plan.hours.toFixed(1) }} h</b>, {{ plan.passes }} passes
          </td>
        </tr>
        <tr class="border-b border-rule align-top">
          <th class="py-1 font-normal text-ink-soft">stays open</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            <span v-if="open(plan).length === 0" class="text-in">nothing</span>
            <p v-for="one in open(plan)" :key="one.hole" class="text-sm text-unsure">
              <b>hole {{ one.hole }}</b
              >: {{ one.why_open }}
            </p>
          </td>
        </tr>
        <tr class="align-top">
          <th class="py-1 font-normal text-ink-soft">proven</th>
          <td
            v-for="plan in plans.plans"
            :key="plan.rule"
            class="px-2 text-sm"
            :class="plan.rule === rule && 'bg-act-wash'"
          >
            {{ plan.proven_best ? 'no better one exists' : `not proven: ${plan.gap}` }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
