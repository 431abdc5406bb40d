<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BlockView, ReadingRow } from '@/api/generated'
import { bareWords } from '@/shared/format/bareUnit'
import { hourText } from '@/shared/format/clock'
import { torqueText } from '@/shared/format/others'
import { asTyped, exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { zeroWords } from '@/shared/format/zero'
import { unit } from '@/shared/state/preferences'
import { useNarrow } from '@/shared/state/useNarrow'
import type { Undo } from '@/shared/state/useUndo'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import UndoButton from '@/shared/ui/UndoButton.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'

import { isClockLens, lensOf } from '@/shared/subjects'

import type { BlockPlace } from './place'
import type { Bores } from './useBores'
import type { Entry } from './useEntry'

/** One line to type a reading; what it means stands beside it before it is taken. */
const props = defineProps<{ block: BlockView; place: BlockPlace; bores: Bores; entry: Entry; undo: Undo }>()
const emit = defineEmits<{ undo: []; tape: [] }>()
const input = ref<HTMLInputElement | null>(null)

const { number, hour, quantity, lens } = props.place
const { draft, understood, notYet, refusal, busy, said, type, take, answer } = props.entry
const isNarrow = useNarrow()
const isBore = computed(() => lens.value === 'bore')
const setup = computed(() => props.block.setups.find((one) => one.quantity === quantity.value))
const bare = computed(() => bareWords(props.entry.bare.value))

const label = computed(() => {
  const what = isBore.value ? (quantity.value ?? '') : lensOf(lens.value).what
  return what.charAt(0).toUpperCase() + what.slice(1)
})
const where = computed(() => {
  const hole = understood.value ? understood.value.hole : number.value
  const at = understood.value ? understood.value.hour : hour.value
  if (hole === null) return `type a hole first, such as #5, or ${example.value}`
  if (isBore.value) return boreWhere(hole)
  return `hole ${hole}${at === null ? '' : ` at ${hourText(at)}`}`
})
const example = computed(() => (isBore.value ? '2 m 45d 1.4' : '5 6h 3.2'))
/** Level by its name, axis by its angle. */
function boreWhere(hole: number): string {
  const answer = understood.value
  const um = answer ? answer.level_um : props.bores.level.value?.depth_um
  const axis = answer ? answer.axis_deg : props.bores.axis.value
  const level = props.bores.levels.value.find((one) => Number(one.depth_um) === Number(um))
  return [`hole ${hole}`, level?.name, axis == null ? 'which axis? such as 45d' : `${axis}°`]
    .filter(Boolean)
    .join(', ')
}
const value = computed(() => {
  const answer = understood.value
  if (!answer || answer.value_m === null) return ''
  const size = answer.value_m + (setup.value?.zero_m ?? 0)
  if (isBore.value) return boreValue(answer.value_m, size)
  return lens.value === 'protrusion'
    ? `${exactSmall(size, unit.value, { signed: true })} ${unit.value}`
    : `${lengthText(size, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
})
function boreValue(shown: number, size: number): string {
  const whole = `${lengthText(size, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
  return props.bores.deviates.value
    ? `${exactSmall(shown, unit.value, { signed: true })} ${unit.value}, ${whole}`
    : whole
}
const circumstances = computed(() => {
  const now = setup.value
  if (!now) return 'no gauge chosen'
  const torque = now.hold_down_torque_nm ? ` ${torqueText(now.hold_down_torque_nm)}` : ''
  return [zeroWords(now), now.land, now.hold_down && `${now.hold_down}${torque}`].filter(Boolean).join(', ')
})
const lastOnes = computed(() =>
  props.block.readings.filter((row) => row.quantity === quantity.value && !row.struck).slice(-3),
)
const placeText = (row: ReadingRow) =>
  isBore.value
    ? `${row.part.replace('hole-', '')} ${row.place}`
    : `${row.hole}·${row.hour === null ? '' : hourText(row.hour)}`

/** In the unit chosen, like everything else here; as typed on hover. */
function shown(row: ReadingRow): string {
  const metres = Number(row.value_um) / 1e6
  return lens.value === 'protrusion'
    ? exactSmall(metres, unit.value, { signed: true })
    : lengthText(metres, SIZE_WITH[unit.value])
}

function focus(): void {
  input.value?.focus()
}
defineExpose({ focus })
</script>

<template>
  <section
    class="no-print sticky bottom-0 z-10 flex flex-col border-t-2 border-ink bg-sheet px-5 py-2 max-lg:px-3 max-lg:py-1"
    aria-label="Entry line"
  >
    <p class="sr-only" role="status" aria-label="Taken">{{ said }}</p>
    <form
      class="flex flex-wrap items-center gap-x-4 gap-y-2 max-lg:gap-x-2 max-lg:gap-y-1"
      @submit.prevent="take()"
    >
      <label for="entry" class="font-bold max-lg:sr-only">{{ label }}</label>
      <!-- Where it goes stands over the field: a keyboard on the screen never hides it. -->
      <p v-if="isNarrow" id="entry-echo" class="w-full text-sm leading-tight" aria-live="polite">
        <span v-if="notYet && notYet !== refusal?.message" class="text-ink-soft">{{ notYet }}</span>
        <template v-else>
          <b>{{ where }}</b><template v-if="value"
            >: <b class="num">{{ value }}</b></template
          >
          <span class="text-ink-soft"> · a bare number is {{ bare }}</span>
        </template>
      </p>
      <input
        id="entry"
        ref="input"
        :value="draft.text"
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        maxlength="60"
        class="num h-12 w-56 max-w-full border-2 border-ink bg-paper px-3 text-2xl max-lg:h-11 max-lg:w-0 max-lg:min-w-24 max-lg:flex-1 max-lg:px-2 max-lg:text-xl"
        :placeholder="example"
        aria-describedby="entry-echo"
        @input="type(($event.target as HTMLInputElement).value)"
        @keydown.esc="input?.blur()"
      />
      <button type="submit" class="quiet min-h-11 max-lg:px-2" :disabled="busy || draft.text.trim() === ''">
        Take
      </button>
      <p v-if="!isNarrow" id="entry-echo" class="min-w-48 flex-1 text-sm leading-tight" aria-live="polite">
        <span v-if="notYet && notYet !== refusal?.message" class="text-ink-soft">{{ notYet }}</span>
        <template v-else>
          <b>{{ where }}</b><template v-if="value"
            >: <b class="num">{{ value }}</b></template
          >
          <span class="block text-ink-soft">{{ circumstances }} · a bare number is {{ bare }}</span>
        </template>
      </p>
      <RouterLink
        v-if="isNarrow && isClockLens(lens)"
        class="quiet inline-flex min-h-11 items-center px-2"
        :to="{ name: 'bench', params: { job: block.job.job_id, lens, hole: number ?? undefined } }"
        >Bench</RouterLink
      >
      <div class="ml-auto flex items-center gap-3 text-sm max-lg:gap-2">
        <span
          v-for="row in lastOnes"
          :key="row.reading_id"
          class="num hidden text-ink-soft min-[1500px]:inline"
          :title="`typed ${asTyped(row.typed, row.typed_unit)} by ${row.taken_by}`"
        >
          {{ placeText(row) }}
          <b class="text-ink">{{ shown(row) }}</b>
        </span>
        <UndoButton :undo="undo" :asked="refusal !== null" @undo="emit('undo')" />
        <button v-if="!isNarrow" type="button" class="quiet mr-6" title="T" @click="emit('tape')">
          Tape
        </button>
      </div>
    </form>
    <!-- Answers follow the field for whoever walks by keyboard, and stand over it for whoever looks. -->
    <RefusalChoices
      class="order-first mb-2"
      :refusal="refusal"
      @answer="answer"
      @read-before="(what) => take({ readBefore: what })"
    />
    <UndoNote class="order-first" :undo="undo" />
  </section>
</template>
