<script setup lang="ts">
import { computed } from 'vue'

import type { Refusal } from '@/api/ask'
import type { ExperimentView } from '@/api/generated'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import { minutesSince } from './useCauses'
import { capital } from './words'

/** What is under way: what was expected stands there before it is written down what came of it. */
const props = defineProps<{ one: ExperimentView; busy: boolean; refusal: Refusal | null }>()
const draft = defineModel<{ value: string; words: string; minutes: string; money: string }>({
  required: true,
})
const emit = defineEmits<{ settle: [] }>()
const usual = computed(() => String(minutesSince(props.one.begun_at)))
</script>

<template>
  <form
    class="grid gap-2 rounded border-2 border-act px-4 py-3"
    aria-label="What came of it"
    @submit.prevent="emit('settle')"
  >
    <p class="text-sm text-ink-soft">
      Under way since {{ usual }} min, begun by {{ one.begun_by }}. Nothing else is changed meanwhile.
    </p>
    <p class="text-xl leading-snug font-bold">{{ capital(one.change) }}</p>
    <p class="text-sm">Expected: {{ one.expected }}</p>
    <TextField
      v-if="one.check"
      v-model="draft.value"
      :label="one.asks || 'What it read'"
      path="value"
      :bare="unit"
    />
    <div class="grid items-start gap-3" :class="one.check ? 'sm:grid-cols-3' : 'sm:grid-cols-2'">
      <TextField
        v-model="draft.words"
        :class="one.check ? '' : 'sm:col-span-2'"
        :label="one.check ? 'In words' : 'What came of it'"
        path="words"
      />
      <TextField
        v-model="draft.minutes"
        label="Minutes"
        path="minutes"
        :hint="`else ${usual}, by the clock`"
      />
      <TextField v-model="draft.money" label="Money" path="money" />
    </div>
    <div class="flex flex-wrap items-center gap-4">
      <button type="submit" class="act" :disabled="busy">Write it down</button>
      <p class="text-sm text-ink-soft">That nothing changed is worth as much. Undo drops it.</p>
    </div>
    <RefusalNote v-if="refusal && !refusal.problems.length" :refusal="refusal" />
  </form>
</template>
