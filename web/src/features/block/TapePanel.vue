<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BlockView, NoteRow } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { asTyped } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import NoteDialog from '@/shared/ui/NoteDialog.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import type { Undo } from '@/shared/state/useUndo'
import ZeroForm from './ZeroForm.vue'

/** Everything recorded, newest first. Struck lines stay and can be restored. */
const props = defineProps<{ block: BlockView; undo: Undo; hole: number | null }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const onlyHole = ref(false)
const setId = computed(() => props.block.holes.find((one) => one.number === props.hole)?.set_id ?? null)

interface TapeLine {
  row: string
  where: string
  words: string
  who: string
  when: string
  struck: boolean
  reason: string
  event: number
  hole: number | null
  /** Notes that stand on a reading; null on what takes none. */
  notes: NoteRow[] | null
}

const lines = computed<TapeLine[]>(() => {
  const readings = props.block.readings.map((row) => ({
    row: row.reading_id,
    where:
      row.hole === null
        ? row.liner_mark || row.part
        : `${row.hole}${row.hour === null ? '' : `·${hourText(row.hour)}`}`,
    words: [
      `${asTyped(row.typed, row.typed_unit)} ${row.quantity === 'protrusion' ? '' : row.quantity}`.trim(),
      row.place,
    ]
      .filter(Boolean)
      .join(', '),
    who: row.taken_by,
    when: row.taken_at,
    struck: row.struck,
    reason: row.strike_reason,
    event: row.event,
    hole: row.hole,
    notes: props.block.notes.filter((note) => note.reading_id === row.reading_id && !note.struck),
  }))
  const done = props.block.done.map((row) => ({
    row: row.row_id,
    where: String(row.hole),
    words: row.words,
    who: row.done_by,
    when: row.done_at,
    struck: row.struck,
    reason: '',
    event: row.event,
    hole: row.hole,
    notes: null,
  }))
  return [...readings, ...done]
    .filter((line) => !onlyHole.value || line.hole === props.hole)
    .sort((a, b) => b.event - a.event)
})
const noted = ref<TapeLine | null>(null)
const noteWords = (note: NoteRow) => [note.words, note.has_photo ? 'photo' : ''].filter(Boolean).join(' · ')

const refusal = computed(() => props.undo.refusal.value)
</script>

<template>
  <section aria-label="Tape">
    <div class="flex items-center justify-between gap-3 border-b border-rule pb-2">
      <h2 class="text-lg">Tape</h2>
      <label v-if="hole !== null" class="text-sm"
        ><input v-model="onlyHole" type="checkbox" /> hole {{ hole }} only</label
      >
      <button type="button" class="quiet text-sm" @click="emit('close')">Close</button>
    </div>
    <RefusalNote :refusal="refusal" />
    <ZeroForm
      v-if="setId"
      :key="setId"
      :block="block"
      :set-id="setId"
      :hole="hole ?? 0"
      @corrected="emit('changed')"
    />
    <ol class="text-sm">
      <li
        v-for="line in lines"
        :key="line.row"
        class="grid grid-cols-[4.2rem_1fr_auto_auto] items-center gap-2 border-b border-rule py-1"
      >
        <b class="num">{{ line.where }}</b>
        <span>
          <span :class="line.struck && 'text-ink-soft line-through'" class="num whitespace-normal">{{
            line.words
          }}</span>
          <span class="block text-xs text-ink-soft">
            {{ line.who }} {{ whenText(line.when)
            }}<template v-if="line.struck"> · struck: {{ line.reason || 'no reason given' }}</template>
          </span>
          <span v-for="note in line.notes ?? []" :key="note.note_id" class="block text-xs"
            >note: {{ noteWords(note) }}</span
          >
        </span>
        <button
          v-if="line.notes"
          type="button"
          class="quiet text-xs"
          :aria-label="`Note on ${line.where} ${line.words}`"
          @click="noted = line"
        >
          Note
        </button>
        <span v-else />
        <button
          type="button"
          class="quiet text-xs"
          :aria-label="`${line.struck ? 'Restore' : 'Strike'} ${line.where} ${line.words}`"
          @click="undo.setStruck(line.row, !line.struck, line.struck ? 'restored' : 'struck on the tape')"
        >
          {{ line.struck ? 'Restore' : 'Strike' }}
        </button>
      </li>
    </ol>
    <NoteDialog
      :key="noted?.row ?? ''"
      :open="noted !== null"
      :reading-id="noted?.row ?? ''"
      :where="noted ? `${noted.where} ${noted.words}` : ''"
      :undo="undo"
      @close="noted = null"
    />
  </section>
</template>
