<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type BlockView, computePasted, type PastedAnswer } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import { cellKey, type GridCell, type GridOf, type GridRow } from './cells'

/** Readings from a spreadsheet or a message: they land in the grid, where each is asked about like any other. */
const props = defineProps<{
  block: BlockView
  of: GridOf
  cells: GridCell[]
  rows: GridRow[]
  /** What was pasted into a cell, and that cell. */
  pasted: { text: string; from: string }
}>()
const emit = defineEmits<{ put: [cell: GridCell, text: string] }>()
const text = ref('')
const answer = ref<PastedAnswer | null>(null)
const refusal = ref<Refusal | null>(null)
const put = ref(0)

async function read(from: string): Promise<void> {
  refusal.value = null
  put.value = 0
  try {
    answer.value = await ask(
      computePasted({
        body: {
          text: text.value,
          holes: props.block.card.heads.flat(),
          hours: props.block.card.required_hours,
        },
      }),
    )
  } catch (error) {
    answer.value = null
    refusal.value = asRefusal(error)
    return
  }
  for (const one of answer.value.readings) place(cellKey(props.of, one.hole, one.hour), one.text)
  placeTable(answer.value.table, from)
}

function place(key: string, typed: string): void {
  const cell = props.cells.find((one) => one.key === key)
  if (!cell) return
  emit('put', cell, typed)
  put.value += 1
}

/** Columns without a heading go from the cell they were pasted into, to the right and down. */
function placeTable(table: string[][], from: string): void {
  if (table.length === 0) return
  const lines = props.rows.map((row) => [row.flange, ...row.cells])
  const top = Math.max(
    0,
    lines.findIndex((line) => line.some((cell) => cell?.key === from)),
  )
  const left = Math.max(
    props.rows.some((row) => row.flange) && from ? 0 : 1,
    lines[top]?.findIndex((cell) => cell?.key === from) ?? 0,
  )
  table.forEach((line, down) =>
    line.forEach((typed, right) => {
      const cell = lines[top + down]?.[left + right]
      if (cell && typed !== '') place(cell.key, typed)
    }),
  )
}

watch(
  () => props.pasted,
  ({ text: now, from }) => {
    text.value = now
    void read(from)
  },
)
const missed = computed(() => answer.value?.not_understood ?? [])
</script>

<template>
  <details class="py-2" :open="text !== '' || undefined">
    <summary class="min-h-11 cursor-pointer py-2 font-bold">Paste from a spreadsheet or a message</summary>
    <form class="grid max-w-3xl gap-2" aria-label="Paste readings" @submit.prevent="read('')">
      <label for="pasted" class="text-sm text-ink-soft">
        Lines such as “5 6h 8.858” or “hole 5 at 6 o’clock: 8.858”, or columns with hole and clock as
        headings. They land in the grid first.
      </label>
      <textarea id="pasted" v-model="text" rows="5" class="field num" maxlength="20000" />
      <div class="flex items-center gap-4">
        <button type="submit" class="quiet" :disabled="text.trim() === ''">Put them into the grid</button>
        <p v-if="answer" role="status" class="text-sm">
          {{ put }} {{ put === 1 ? 'reading stands' : 'readings stand' }} in the grid, not taken yet.
        </p>
      </div>
      <RefusalNote :refusal="refusal" />
      <ul v-if="missed.length" class="text-sm text-unsure" aria-label="Not understood">
        <li v-for="one in missed" :key="one.line">
          line {{ one.line }}, “{{ one.text }}”: {{ one.message }}
        </li>
      </ul>
    </form>
  </details>
</template>
