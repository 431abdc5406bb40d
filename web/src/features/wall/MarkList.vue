<script setup lang="ts">
import type { WallMarkView } from '@/api/generated'
import { clockText } from '@/shared/format/clock'
import { exactSmall, lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** What was found on the wall, by its letter. */
defineProps<{ marks: WallMarkView[] }>()
const emit = defineEmits<{ notes: [mark: WallMarkView] }>()
const at = (mark: WallMarkView) => {
  const { hour, until_hour: until, from_m: from, until_m: to } = mark.finding
  const size = SIZE_WITH[unit.value]
  const digits = unit.value === 'thou' ? 1 : 0
  const clock =
    hour === null ? '' : until === null ? clockText(hour) : `${clockText(hour)} to ${clockText(until)}`
  const depths =
    from === null
      ? ''
      : to === null || to === from
        ? `${lengthText(from, size, { digits })} ${size}`
        : `${lengthText(from, size, { digits })} to ${lengthText(to, size, { digits })} ${size}`
  return [clock, depths].filter(Boolean).join(', ')
}
const deep = (mark: WallMarkView) =>
  mark.finding.length_m === null
    ? ''
    : `${exactSmall(mark.finding.length_m, unit.value)} ±${uncertaintyText(mark.depth_expanded_m ?? 0, unit.value)} ${unit.value} deep`
</script>

<template>
  <ul class="grid gap-2">
    <li v-for="mark in marks" :key="mark.finding.finding_id">
      <button type="button" class="flex w-full gap-3 text-left" @click="emit('notes', mark)">
        <span
          class="grid size-7 shrink-0 place-items-center rounded-full bg-ink text-sm font-bold text-paper"
          >{{ mark.letter }}</span
        >
        <span class="leading-snug">
          <b class="capitalize">{{ mark.finding.word }}</b><b v-if="mark.finding.catches">, catches a nail</b>
          <span v-if="mark.finding.kind === 'feel'" class="text-sm text-ink-soft"> by feel</span>
          <span class="block text-sm text-ink-soft"
            >{{ [deep(mark), at(mark), mark.finding.words, mark.finding.in_round].filter(Boolean).join(' · ')
            }}{{ mark.finding.photo ? ' · photo' : '' }}</span
          >
        </span>
      </button>
    </li>
  </ul>
</template>
