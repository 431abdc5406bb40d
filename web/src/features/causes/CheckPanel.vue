<script setup lang="ts">
import { computed } from 'vue'

import type { CausesView, NextCheckView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { keyOf } from './useCauses'
import { capital, holesText, nameOf } from './words'

/** The check at hand with what it would read and tell, the others behind it; begun before it is known what it reads. */
const props = defineProps<{ view: CausesView; check: NextCheckView; busy: boolean }>()
const picked = defineModel<string | null>('picked', { required: true })
const emit = defineEmits<{ begin: [change: string, expected: string] }>()
const small = (metres: number) =>
  `${lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })} ${unit.value}`
const likeliest = computed(() => {
  const best = props.check.if_found.indexOf(Math.max(...props.check.if_found))
  const found = props.view.explained[best]
  return found ? nameOf(found) : 'its cause'
})
const where = computed(() => (props.check.where.length ? `, ${holesText(props.check.where)}` : ''))
const change = computed(() => `${props.check.name}${where.value}`)
const expected = computed(() => `${small(props.check.expected_m)} if it is ${likeliest.value}, else 0`)
/** A puller or a press is needed: its hazard stands at the step. */
const draws = computed(() => /puller|press/.test(props.check.tools))
const others = computed(() =>
  props.view.checks.filter((one) => keyOf(one) !== keyOf(props.check)).slice(0, 5),
)
</script>

<template>
  <section
    class="grid gap-2 rounded bg-plate px-4 py-3 text-plate-text"
    aria-label="Cheapest check that tells the causes apart"
  >
    <p class="text-sm text-plate-soft">
      {{ picked ? 'The check that was chosen' : 'Cheapest check that tells the causes apart' }}
    </p>
    <p class="text-xl leading-snug font-bold">
      {{ capital(change) }}: <span class="num">{{ check.minutes }} min</span>
    </p>
    <p class="text-sm text-plate-soft">
      {{ capital(check.tools) }}. Expected: {{ expected }}. Tells
      <span class="num">{{ check.bits.toFixed(2) }}</span> bit of what is open.
    </p>
    <p v-if="draws" class="text-sm">
      Liners are heavy and sharp at the ends, pullers throw parts: lift with help, stand aside, by the rules
      of the shop.
    </p>
    <div class="flex flex-wrap items-center gap-x-5 gap-y-1">
      <button type="button" class="act" :disabled="busy" @click="emit('begin', change, expected)">
        Begin this check
      </button>
      <button v-if="picked" type="button" class="min-h-11 text-plate-act underline" @click="picked = null">
        Back to the cheapest
      </button>
    </div>
    <details v-if="others.length">
      <summary class="min-h-8 cursor-pointer text-plate-act">Other checks</summary>
      <ul class="text-sm">
        <li v-for="one in others" :key="keyOf(one)">
          <button type="button" class="min-h-11 w-full text-left underline" @click="picked = keyOf(one)">
            {{ one.name }}<template v-if="one.where.length">, {{ holesText(one.where) }}</template
            >: <span class="num">{{ one.minutes }} min, {{ one.bits.toFixed(2) }} bit</span>
          </button>
        </li>
      </ul>
    </details>
  </section>
</template>
