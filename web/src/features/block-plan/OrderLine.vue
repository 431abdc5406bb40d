<script setup lang="ts">
import { computed } from 'vue'

import type { BlockPlansView, BlockPlanView } from '@/api/generated'
import { hourText } from '@/shared/format/clock'

/** The order of cutting, and what is in the way of the handle: no hole that is obstructed is cut first. */
const props = defineProps<{ plan: BlockPlanView; plans: BlockPlansView }>()
const inTheWay = (hole: number) => props.plans.obstructions.filter((one) => one.hole === hole)
const steps = computed(() => props.plan.order.map((hole) => ({ hole, way: inTheWay(hole) })))
</script>

<template>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-ink-soft py-2">
    <b class="mr-3">Order</b>
    <template v-for="(one, at) in steps" :key="one.hole">
      <span v-if="at" aria-hidden="true">→</span>
      <span class="inline-flex items-center gap-2">
        <span
          class="inline-grid size-9 place-items-center rounded-full border-2 border-ink text-lg font-bold"
          :class="one.way.length ? 'border-dashed' : ''"
          >{{ one.hole }}</span
        >
        <span class="text-sm leading-tight">
          <template v-if="one.way.length"
            ><b>{{ one.way[0]?.what }}</b
            ><span class="block text-ink-soft"
              >{{ hourText(one.way[0]?.from_hour ?? 12) }} to {{ hourText(one.way[0]?.until_hour ?? 12)
              }}<template v-if="one.way[0]?.remedy">: {{ one.way[0].remedy }}</template></span
            ></template
          >
          <template v-else
            ><b>free all round</b
            ><span class="block text-ink-soft">{{
              at === 0 ? 'cut it first' : 'then this one'
            }}</span></template
          >
        </span>
      </span>
    </template>
    <span v-if="steps.length === 0" class="text-ink-soft">nothing is cut</span>
  </div>
</template>
