<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BlockView, NoteRow } from '@/api/generated'
import { hourText } from '@/shared/format/clock'
import { asTyped } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import NoteDialog from '@/shared/ui/NoteDialog.vue'

import type { Undo } from '@/shared/state/useUndo'
import ZeroForm from './ZeroForm.vue'

/** Everything recorded, newest first. Struck lines stay and can be restored. */
const props = defineProps<{ block: BlockView; undo: Undo; hole: number | null }>()
const emit = defineEmits<{ close: []; changed: [] }>()
const onlyHole = ref(false)
const setId = computed(() => props.block.holes.find((one) => one.number === props.hole)?.set_id ?? null)

interface Line {
  event: number
  where: string
  words: string
  who: string
  when: string
  clockWentBack: boolean
  struck: boolean
  reason: string
  hole: number | null
  /** The reading's id and the notes that stand on it; null on what takes none. */
  reading: string | null
  notes: NoteRow[]
  /** What the strike key says, and what brings it back. */
  verbs: readonly string[]
}

const struckWords = (by: string, why: string) => [by, why].filter(Boolean).join(', ')
const lines = computed<Line[]>(() => {
  const readings = props.block.readings.map((row) => ({
    event: row.event,
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
    who: [row.taken_by, row.taken_with].filter(Boolean).join(', '),
    when: row.taken_at,
    clockWentBack: row.clock_went_back,
    struck: row.struck,
    reason: struckWords(row.struck_by, row.strike_reason),
    hole: row.hole,
    reading: row.reading_id,
    notes: props.block.notes.filter((note) => note.reading_id === row.reading_id && !note.struck),
    verbs: ['Strike', 'Restore'],
  }))
  const others = props.block.tape.map((row) => ({
    event: row.event,
    where: row.hole === null ? row.part.replace(/^liner-/, '') : String(row.hole),
    words: row.words,
    who: row.recorded_by,
    when: row.recorded_at,
    clockWentBack: row.clock_went_back,
    struck: row.struck,
    reason: struckWords(row.struck_by, row.strike_reason),
    hole: row.hole,
    reading: null,
    notes: [],
    verbs: row.kind === 'set' ? ['Close', 'Open again'] : ['Strike', 'Restore'],
  }))
  return [...readings, ...others]
    .filter((line) => !onlyHole.value || line.hole === props.hole)
    .sort((a, b) => b.event - a.event)
})
const noted = ref<Line | null>(null)
const noteWords = (note: NoteRow) => [note.words, note.has_photo ? 'photo' : ''].filter(Boolean).join(' · ')
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
        :key="line.event"
        class="grid grid-cols-[4.2rem_1fr_auto_auto] items-center gap-2 border-b border-rule py-1"
      >
        <b class="num">{{ line.where }}</b>
        <span>
          <span
            :class="[line.reading && 'num whitespace-normal', line.struck && 'text-ink-soft line-through']"
            >{{ line.words }}</span
          >
          <span class="block text-xs text-ink-soft">
            {{ line.who }} {{ whenText(line.when)
            }}<b v-if="line.clockWentBack" class="text-unsure">, though recorded after what is dated later</b
            ><template v-if="line.struck"> · struck: {{ line.reason }}</template>
          </span>
          <span v-for="note in line.notes" :key="note.note_id" class="block text-xs"
            >note: {{ noteWords(note) }}</span
          >
        </span>
        <button
          v-if="line.reading"
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
          :aria-label="`${line.verbs[line.struck ? 1 : 0]} ${line.where} ${line.words}`"
          @click="undo.setStruck(line.event, !line.struck, line.struck ? 'restored' : 'struck on the tape')"
        >
          {{ line.verbs[line.struck ? 1 : 0] }}
        </button>
      </li>
    </ol>
    <NoteDialog
      :key="noted?.reading ?? ''"
      :open="noted !== null"
      :reading-id="noted?.reading ?? ''"
      :where="noted ? `${noted.where} ${noted.words}` : ''"
      :undo="undo"
      @close="noted = null"
    />
  </section>
</template>
