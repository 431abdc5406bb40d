<script setup lang="ts">
import { computed } from 'vue'

import type { PullView } from '@/api/generated'

import { clockText, forceText } from './words'

/** Flange to ledge in huge digits, expected force now and ahead. */
const props = defineProps<{ pull: PullView; elapsed: number | null; length: number | null }>()
const mm = computed(() => Math.round(props.pull.to_go_m * 1000))
const last = computed(() => [...props.pull.marks].reverse().find((one) => one.force_n !== null) ?? null)
const asExpected = computed(() => {
  const [read, expected] = [last.value, props.pull.expected]
  if (!read || !expected || Math.abs(read.to_go_m - props.pull.to_go_m) > 0.003) return ''
  const force = read.force_n ?? 0
  return force > expected.high_n * 1.1
    ? 'above the band: stop, look'
    : force < expected.low_n * 0.9
      ? 'easier'
      : 'as expected'
})
const isOver = computed(() => props.pull.state === 'home')
const whole = computed(() => props.length ?? props.pull.from_m)
const at = (toGo: number) => 100 - (toGo / whole.value) * 100
const turns = computed(() => {
  const [ahead, turn] = [props.pull.ahead, props.pull.turn_m]
  return ahead && turn ? Math.max(0, Math.round((props.pull.to_go_m - ahead.to_go_m) / turn)) : null
})
</script>

<template>
  <div>
    <div class="flex items-baseline justify-between text-ink-soft">
      <span class="text-xl">{{ isOver ? 'home' : 'flange to ledge' }}</span>
      <span
        >{{ elapsed === null || isOver ? '' : clockText(elapsed)
        }}<template v-if="pull.turns"> · {{ pull.turns }} turns</template></span
      >
    </div>
    <p class="flex items-end gap-4" role="status" aria-label="Flange to ledge">
      <span class="text-[9rem] leading-[0.9] font-bold tabular-nums lg:text-[12.5rem]">{{ mm }}</span>
      <span class="pb-3 text-ink-soft"
        ><span class="text-2xl">±{{ Math.ceil(pull.within_m * 1000) }}</span
        ><br /><span class="text-4xl">mm</span></span
      >
    </p>
    <svg viewBox="0 0 100 8" preserveAspectRatio="none" class="block h-6 w-full sm:hidden" aria-hidden="true">
      <path d="M0 4H100" class="stroke-rule" stroke-width="0.8" />
      <path :d="`M0 4H${at(pull.to_go_m)}`" class="stroke-part" stroke-width="2.4" />
      <path
        v-for="stop in [0.04, 0.02, 0]"
        :key="stop"
        :d="`M${at(stop)} 1V7`"
        class="stroke-ink"
        stroke-width="0.5"
      />
    </svg>
    <dl v-if="pull.expected && !isOver" class="mt-2 grid grid-cols-2 gap-x-6 border-t-2 border-rule pt-2">
      <div>
        <dt class="text-ink-soft">expected now</dt>
        <dd class="flex flex-wrap items-baseline gap-x-3">
          <b class="text-4xl">{{ forceText(pull.expected.middle_n) }} kN</b>
          <span class="text-ink-soft"
            >{{ forceText(pull.expected.low_n) }} to {{ forceText(pull.expected.high_n) }}</span
          >
        </dd>
        <dd
          v-if="last"
          class="text-sm"
          :class="asExpected.startsWith('above') ? 'font-bold text-out' : 'text-ink-soft'"
        >
          read {{ forceText(last.force_n ?? 0) }}<template v-if="asExpected">: {{ asExpected }}</template>
        </dd>
      </div>
      <div v-if="pull.ahead">
        <dt class="text-ink-soft">
          at {{ Math.round(pull.ahead.to_go_m * 1000) }} mm<template v-if="turns"
            >, in {{ turns }} turns</template
          >
        </dt>
        <dd>
          <b class="text-4xl">{{ forceText(pull.ahead.middle_n) }} kN</b>
        </dd>
        <dd v-if="pull.stiffens_at_m !== null" class="text-sm font-bold">
          it stiffens there: the fit is tighter below
        </dd>
      </div>
    </dl>
    <p v-if="pull.over_capacity" class="caution mt-1">
      {{ pull.tool }} gives {{ forceText(pull.capacity_n ?? 0) }} kN, and the band reaches beyond it: have a
      stronger one at hand.
    </p>
  </div>
</template>
