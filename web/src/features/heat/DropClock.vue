<script setup lang="ts">
import { computed } from 'vue'

import type { DropView } from '@/api/generated'

import { largeOf, STEP_WORDS } from './dropWords'

/** The seconds that are left, large enough to be read across the shop, and whose turn it is with what. */
const props = defineProps<{ drop: DropView; elapsed: number; wall?: boolean }>()
const large = computed(() => largeOf(props.drop, props.elapsed))
const step = computed(() => props.drop.sheet.find((one) => one.kind === props.drop.next_step) ?? null)
const due = computed(() => (step.value ? Math.round(step.value.due_s - props.elapsed) : 0))
const TONE = {
  'text-ink': 'text-plate-text',
  'text-act': 'text-plate-act',
  'text-out': 'text-plate-act',
  'text-in': 'text-plate-text',
}
</script>

<template>
  <section
    class="grid items-center gap-x-6 rounded bg-plate px-5 text-plate-text"
    :class="wall ? 'content-center justify-items-center py-4' : 'grid-cols-[auto_minmax(0,1fr)] py-1'"
    aria-label="Clock"
  >
    <p
      class="num leading-none font-bold"
      :class="[TONE[large.tone], wall ? 'text-[min(30vw,46vh)]' : 'text-8xl max-sm:text-7xl']"
      role="timer"
      aria-label="Left"
    >
      {{ large.digits }}
    </p>
    <div class="min-w-0" :class="wall ? 'text-center text-5xl' : 'text-xl'">
      <p :class="large.tone === 'text-out' ? 'font-bold text-plate-act' : 'text-plate-soft'">
        {{ large.words }}
      </p>
      <p v-if="step" class="font-bold" :class="wall ? 'mt-6' : 'text-2xl'">
        <span v-if="drop.drops">{{ drop.drops }}: </span>{{ STEP_WORDS[step.kind] ?? step.kind }}
        <span class="whitespace-nowrap" :class="due < 0 && 'text-plate-act'"
          >{{ due >= 0 ? 'in ' : '' }}<span class="num">{{ Math.abs(due) }}</span
          >{{ due >= 0 ? ' s' : ' s late' }}</span
        >
      </p>
      <p v-else-if="drop.state === 'in the hole'" class="font-bold" :class="wall ? 'mt-6' : 'text-2xl'">
        straight down, no hammer<template v-if="drop.calls"
          >; {{ drop.calls }} sees that it is square</template
        >
      </p>
      <p v-if="drop.out_at && drop.goes_on" class="text-plate-soft" :class="!wall && 'text-base'">
        <span class="num">{{ Math.floor(elapsed) }}</span> s out of the cold
      </p>
    </div>
  </section>
</template>
