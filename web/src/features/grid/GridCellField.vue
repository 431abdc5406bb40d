<script setup lang="ts">
import { computed } from 'vue'

import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'

import type { GridCell } from './cells'

/** One cell: what is known there, and a field that takes what is typed over it. */
const props = defineProps<{ cell: GridCell; text: string; asked: boolean; busy: boolean }>()
const emit = defineEmits<{ type: [text: string]; leave: []; move: [down: number]; paste: [text: string] }>()
const digits = useGaugeDigits()
const isSmall = computed(() => props.cell.place.quantity === 'protrusion')
const known = computed(() => {
  const metres = props.cell.known
  if (metres === null) return ''
  if (isSmall.value)
    return lengthText(metres, unit.value, { signed: true, digits: digits.small('protrusion') })
  return lengthText(metres, SIZE_WITH[unit.value], { digits: digits.size(props.cell.place.quantity) })
})

function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!/[\n\t]/.test(text.trim())) return
  event.preventDefault()
  emit('paste', text)
}
</script>

<template>
  <input
    :value="text"
    type="text"
    inputmode="text"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    maxlength="60"
    class="num h-11 w-full min-w-[4.5rem] border bg-sheet px-2 text-right text-base placeholder:text-ink-soft placeholder:opacity-100"
    :class="asked ? 'border-2 border-unsure' : text ? 'border-2 border-ink' : 'border-rule'"
    :placeholder="busy ? '…' : known || '–'"
    :aria-label="known ? `${cell.name}, known ${known}` : cell.name"
    :aria-invalid="asked"
    :data-cell="cell.key"
    @input="emit('type', ($event.target as HTMLInputElement).value)"
    @change="emit('leave')"
    @keydown.enter.prevent="emit('move', 1)"
    @keydown.down.prevent="emit('move', 1)"
    @keydown.up.prevent="emit('move', -1)"
    @paste="paste"
  />
</template>
