<script setup lang="ts">
import type { Goal, GoalView } from '@/api/generated'
import { unit } from '@/shared/state/preferences'

import { reachedText } from './words'

/** What is made small, the first above all; each can be put before the one above it. */
const props = defineProps<{ goals: readonly GoalView[] }>()
const emit = defineEmits<{ order: [goals: Goal[]] }>()
function up(at: number): void {
  const names = props.goals.map((one) => one.goal)
  const moved = names.splice(at, 1)
  names.splice(at - 1, 0, ...moved)
  emit('order', names)
}
</script>

<template>
  <section aria-label="Goals in their order">
    <h2 class="text-sm text-ink-soft">What is made small, the first above all</h2>
    <ol>
      <li
        v-for="(one, at) in goals"
        :key="one.goal"
        class="flex min-h-9 items-center gap-2 border-b border-rule"
      >
        <button
          type="button"
          class="grid h-9 w-9 shrink-0 place-items-center rounded border border-rule disabled:opacity-0"
          :disabled="at === 0"
          :aria-label="`${one.goal} before the one above`"
          @click="up(at)"
        >
          ↑
        </button>
        <span class="min-w-0 flex-1">{{ one.goal }}</span>
        <b class="num">{{ reachedText(one, unit) }}</b>
        <span class="w-16 text-sm" :class="one.proven ? 'text-in' : 'text-unsure'">{{
          one.proven ? 'proven' : 'not proven'
        }}</span>
      </li>
    </ol>
  </section>
</template>
