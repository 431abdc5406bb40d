<script setup lang="ts">
import type { MatchedHoleView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Under the picture, hole by hole: how it stands then, how likely it is in, and whether its liner must stay. */
defineProps<{ holes: readonly MatchedHoleView[]; locked: readonly number[]; isPress: boolean }>()
const emit = defineEmits<{ lock: [hole: number] }>()
const small = (metres: number, signed = true) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed })
const TONE = { in: 'text-in', out: 'text-out', 'cannot tell': 'text-unsure' } as Record<string, string>
const words = (hole: MatchedHoleView) =>
  hole.state === null ? `${Math.round(hole.chance * 100)} % in` : hole.state
const honing = (hole: MatchedHoleView) => hole.ways.find((one) => one.liner === hole.then)?.honing_m ?? 0
</script>

<template>
  <ul
    class="grid gap-1 pl-8 sm:pl-16"
    :style="`grid-template-columns: repeat(${Math.min(holes.length, 8)}, minmax(0, 1fr))`"
    aria-label="Every hole then"
  >
    <li v-for="hole in holes" :key="hole.hole" class="flex flex-col items-center text-center">
      <b class="num text-lg sm:text-2xl">{{ small(hole.stands.value_m) }}</b>
      <span class="num text-sm text-ink-soft">±{{ small(hole.stands.expanded_m, false) }}</span>
      <span class="text-sm font-bold" :class="TONE[hole.state ?? ''] ?? 'text-ink'">{{ words(hole) }}</span>
      <span v-if="isPress && honing(hole) > 0" class="text-sm text-act"
        >hone {{ small(honing(hole), false) }} off the diameter</span
      >
      <span v-if="hole.cut_m !== null" class="text-sm text-act">once cut {{ small(hole.cut_m, false) }}</span>
      <button
        v-if="hole.now"
        type="button"
        class="mt-auto min-h-11 w-full rounded border px-1 text-sm"
        :class="locked.includes(hole.hole) ? 'border-ink bg-ink text-paper' : 'border-rule'"
        :aria-pressed="locked.includes(hole.hole)"
        @click="emit('lock', hole.hole)"
      >
        <span class="sr-only">Hole {{ hole.hole }}, {{ hole.now }}: </span
        >{{ locked.includes(hole.hole) ? 'stays' : 'may go' }}
      </button>
    </li>
  </ul>
</template>
