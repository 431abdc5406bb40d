<script setup lang="ts">
import { computed } from 'vue'

import type { RouteView } from '@/api/generated'
import { whenText } from '@/shared/format/time'

import { columnsOf, type DrawnHold, holdsOf, holdState } from './drawing'

/** The hold points of the route: what each says, what is missing, by whom and why it was passed. */
const props = defineProps<{ route: RouteView }>()
const holds = computed(() => holdsOf(columnsOf(props.route.operations, true), props.route.holds))
const missing = (one: DrawnHold) =>
  one.holds.find((hold) => hold.state === 'waits' || hold.state === 'open')?.missing ?? ''
const passes = (one: DrawnHold) => one.holds.filter((hold) => hold.state === 'passed')
const TONE = { waits: 'font-bold text-unsure', open: 'text-ink-soft', passed: 'text-part', clear: 'text-in' }
</script>

<template>
  <section aria-label="Hold points">
    <h2 class="text-lg">
      Hold points
      <span class="text-sm font-normal text-ink-soft"
        >to pass one takes a name and a reason; the proof prints both</span
      >
    </h2>
    <ol class="border-t border-ink">
      <li
        v-for="one in holds"
        :key="one.number"
        class="grid grid-cols-[1.6rem_1fr_auto] gap-x-2 border-b border-rule py-1.5"
      >
        <b class="num bg-ink text-center leading-6 text-paper">{{ one.number }}</b>
        <span>{{ one.hold.words }}</span>
        <span :class="TONE[holdState(one)]">{{ holdState(one) }}</span>
        <span v-if="holdState(one) === 'waits' && missing(one)" class="col-start-2 text-sm text-unsure">
          {{ missing(one) }}
        </span>
        <span
          v-for="hold in passes(one)"
          :key="hold.hole ?? 0"
          class="col-span-2 col-start-2 text-sm text-ink-soft"
        >
          <template v-if="hold.hole !== null">hole {{ hold.hole }}, </template>passed by {{ hold.passed_by }},
          {{ hold.passed_at ? whenText(hold.passed_at) : '' }}: {{ hold.reason }}
        </span>
      </li>
    </ol>
  </section>
</template>
