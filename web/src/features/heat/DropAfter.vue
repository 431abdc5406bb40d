<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DropView, HeatMarkKind } from '@/api/generated'
import { bareUnit, bareWords } from '@/shared/format/bareUnit'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

import type { DropRun } from './useDrop'

/** After it is home: held down until cold, its height read three times at one place, and what that settles. */
const props = defineProps<{ run: DropRun; drop: DropView }>()
const words = ref('')
const height = ref('')
const HEIGHTS: readonly HeatMarkKind[] = ['height at once', 'height cold', 'height after a second press']
const heights = computed(() => props.drop.heights)
const rows = computed(
  () =>
    [
      ['at once', heights.value?.warm_m ?? null],
      ['cold', heights.value?.cold_m ?? null],
      ['pressed again', heights.value?.again_m ?? null],
    ] as const,
)
const next = computed(() => HEIGHTS[rows.value.findIndex(([, metres]) => metres === null)] ?? HEIGHTS[2])
const isOpen = computed(() => rows.value.some(([, metres]) => metres === null))
const small = (metres: number) => lengthText(metres, unit.value, { signed: true })
async function read(): Promise<void> {
  const more = { height: height.value, words: words.value, bare_unit: bareUnit('protrusion', unit.value) }
  if (next.value && (await props.run.note(next.value, more))) height.value = words.value = ''
}
async function release(): Promise<void> {
  if (await props.run.note('let go', { words: words.value })) words.value = ''
}
</script>

<template>
  <section class="grid gap-3" aria-label="Afterwards">
    <div v-if="drop.state !== 'let go' || !drop.hold?.is_cold" class="flex flex-wrap gap-2">
      <button
        v-if="drop.state !== 'held down'"
        type="button"
        class="act min-h-16 grow text-xl"
        :disabled="run.busy.value"
        @click="run.note('held down')"
      >
        Clamp is on
      </button>
      <button
        v-else
        type="button"
        class="min-h-16 grow text-xl"
        :class="drop.hold?.is_cold ? 'act' : 'quiet'"
        :disabled="run.busy.value"
        @click="release"
      >
        Let go
      </button>
    </div>
    <div v-if="heights">
      <h2 class="text-lg">Height at one place, three times</h2>
      <dl class="grid grid-cols-3 border-y border-rule">
        <div v-for="[name, metres] in rows" :key="name" class="py-1">
          <dt class="text-sm text-ink-soft">{{ name }}</dt>
          <dd class="num text-xl font-bold">{{ metres === null ? '–' : small(metres) }}</dd>
        </div>
      </dl>
      <p class="mt-1" :class="heights.settles === 'not told yet' ? '' : 'font-bold'">
        <PhraseText :phrase="heights.says" />
        <span class="text-sm font-normal text-ink-soft">
          Told from ±{{ uncertaintyText(heights.within_m, unit) }} {{ unit }} on<template
            v-if="heights.grew_m !== null"
            >; both grow apart by {{ small(heights.grew_m) }} as they cool</template
          >.
        </span>
      </p>
      <RouterLink v-if="heights.settles !== 'not told yet'" class="link" :to="{ name: 'route' }"
        >Choose the school of this job</RouterLink
      >
    </div>
    <form v-if="isOpen" class="grid grid-cols-[1fr_auto] items-end gap-2" @submit.prevent="read">
      <label class="grid text-sm"
        >{{ next }}, over the deck, in {{ bareWords(bareUnit('protrusion', unit))
        }}<input v-model="height" class="field min-h-11" inputmode="decimal" name="height"
      /></label>
      <button type="submit" class="quiet min-h-11" :disabled="!height.trim()">Read it</button>
      <label v-if="!drop.hold?.is_cold" class="col-span-2 grid text-sm"
        >why, where it is not cold yet<input v-model="words" class="field min-h-11" name="words"
      /></label>
    </form>
  </section>
</template>
