<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { HoneView } from '@/api/generated'

import type { HoneNow } from './useHone'

/** The one key, what it does now; beside it stones cleaned, undo, and what the pedal is. */
const props = defineProps<{ now: HoneNow; view: HoneView; canTake: boolean }>()
const emit = defineEmits<{ act: [counted: number | null]; undo: [] }>()
const counted = ref('')
const title = computed(() => {
  const { state, stage, round_of_stage } = props.view
  if (state === 'measure') return 'Read the bore'
  if (state === 'running') return `${cap(props.view.turning?.stage ?? '')}, round ${round_of_stage} turns`
  if (state === 'ready') return `${cap(stage ?? '')}, round ${round_of_stage}`
  return cap(state)
})
const cap = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)
const LABELS: Partial<Record<HoneView['state'], string>> = {
  measure: 'Take the reading',
  running: 'Stopped: measure',
  ready: 'Start the stones',
}
const label = computed(() => LABELS[props.view.state] ?? '')
const minutes = computed(() => {
  const one = props.view.minutes
  if (!one) return ''
  const off = Math.max(1, Math.ceil(one.middle - one.fast))
  return `${Math.round(one.middle)} min ±${off} to the finished bore`
})
function act(): void {
  const typed = Number(counted.value)
  emit('act', counted.value.trim() !== '' && Number.isInteger(typed) ? typed : null)
}
/** What was typed stays until the round is stopped. */
watch(
  () => props.view.state,
  () => (counted.value = ''),
)
defineExpose({ act })
</script>

<template>
  <footer
    class="sticky bottom-0 grid grid-cols-2 items-center gap-x-3 gap-y-2 border-t-2 border-ink bg-sheet px-4 py-2 md:grid-cols-[minmax(0,22rem)_minmax(0,1fr)_auto_auto_auto]"
  >
    <div class="max-md:col-span-2 max-md:flex max-md:items-baseline max-md:gap-3">
      <p class="text-xl font-bold">{{ title }}</p>
      <p class="text-sm text-ink-soft">
        {{ now.said.value || minutes || 'between two rounds every level is read' }}
      </p>
    </div>
    <button
      v-if="label"
      type="button"
      class="act min-h-16 text-2xl max-md:col-span-2"
      :disabled="now.busy.value || (view.state === 'measure' && !canTake)"
      title="Space, or the pedal"
      @click="act"
    >
      {{ label }}
    </button>
    <span v-else class="max-md:hidden" />
    <label v-if="view.state === 'running'" class="text-sm text-ink-soft"
      >or counted
      <input
        v-model="counted"
        class="num block min-h-11 w-24 rounded border border-rule bg-sheet px-2 text-lg text-ink"
        inputmode="numeric"
        autocomplete="off"
        maxlength="5"
        :placeholder="String(now.strokes.value)"
    /></label>
    <button
      v-else
      type="button"
      class="quiet min-h-14 text-lg"
      :disabled="view.made.length === 0 || now.busy.value"
      @click="now.cleaned()"
    >
      Stones cleaned
    </button>
    <button
      type="button"
      class="quiet min-h-14 text-lg"
      :disabled="now.busy.value || (view.made.length === 0 && view.state !== 'measure')"
      title="Ctrl+Z"
      @click="emit('undo')"
    >
      Undo
    </button>
    <p v-if="label" class="text-sm text-ink-soft max-md:hidden">
      <b class="text-ink">Pedal</b> or space:<br />{{
        view.state === 'measure' ? 'take a reading' : 'start and stop'
      }}
    </p>
  </footer>
</template>
