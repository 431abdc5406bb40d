<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { BoreDatum, SettingView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { BoringNow } from './useBoring'

/** How the bar was set: what it is centred on, four feeler gaps and the move they ask for, the next hole, what stays. */
const props = defineProps<{ now: BoringNow; setting: SettingView | null; jobId: string }>()
const EMPTY = {
  datum: 'unworn end',
  gap_12: '',
  gap_3: '',
  gap_6: '',
  gap_9: '',
  to_hole: '',
  apart: '',
  level: '',
  not_to_cut: '',
  words: '',
}
type Name = keyof typeof EMPTY
const draft = useLocalStorage(`vallo-bar-${props.jobId}-${props.now.hole.value}`, { ...EMPTY })
const isOpen = ref(props.setting === null)
const { refusal, busy, send, answer } = useForm()
const DATUMS = ['unworn end', 'counterbore', 'machined flat', 'main bores'].map((value) => ({
  value,
  label: value,
}))
const GAPS = [
  { name: 'gap_12', label: 'gap at 12 h', place: 'col-start-2 row-start-1' },
  { name: 'gap_9', label: 'gap at 9 h', place: 'col-start-1 row-start-2' },
  { name: 'gap_3', label: 'gap at 3 h', place: 'col-start-3 row-start-2' },
  { name: 'gap_6', label: 'gap at 6 h', place: 'col-start-2 row-start-3' },
] as const
const put = (path: string, text: string) => {
  if (path in draft.value) draft.value[path as Name] = text
}
const offset = computed(() => {
  const one = props.setting
  if (!one?.offset || one.move_hour === null) return null
  const angle = ((one.move_hour - 3) * Math.PI) / 6
  return { x: Math.cos(angle), y: Math.sin(angle) }
})
function write(confirmed = false): Promise<void> {
  return send(async () => {
    const { to_hole, datum, ...typed } = draft.value
    const other = Number(to_hole)
    await props.now.set({
      ...typed,
      datum: datum as BoreDatum,
      to_hole: to_hole.trim() && Number.isInteger(other) ? other : null,
      bare_unit: unit.value === 'µm' ? '0.01 mm' : 'thou',
      confirmed,
    })
    draft.value = { ...EMPTY, datum }
    isOpen.value = false
  })
}
</script>

<template>
  <section class="border-b border-rule pb-3" aria-label="Set-up">
    <div class="flex flex-wrap items-start gap-x-5 gap-y-2">
      <svg
        v-if="setting?.offset"
        v-legible
        viewBox="-60 -60 120 120"
        class="h-24 w-24 shrink-0"
        aria-hidden="true"
      >
        <circle r="54" class="fill-sheet stroke-ink" stroke-width="2" />
        <circle
          :cx="offset ? -offset.x * 12 : 0"
          :cy="offset ? -offset.y * 12 : 0"
          r="24"
          class="fill-part-wash stroke-part"
          stroke-width="2"
        />
        <path
          v-if="offset"
          :d="`M${-offset.x * 12} ${-offset.y * 12}L${offset.x * 40} ${offset.y * 40}`"
          class="stroke-act"
          stroke-width="4"
        />
        <circle v-if="offset" :cx="offset.x * 40" :cy="offset.y * 40" r="5" class="fill-act" />
      </svg>
      <div class="min-w-0 flex-1">
        <template v-if="setting">
          <p v-for="(said, at) in setting.says" :key="at" :class="at === 0 ? 'text-lg font-bold' : ''">
            <PhraseText :phrase="said" />
          </p>
          <p class="text-sm text-ink-soft">
            Set on the {{ setting.datum
            }}<template v-if="setting.level">, level: {{ setting.level }}</template
            ><template v-if="setting.apart_m !== null"
              >; {{ lengthText(setting.apart_m, SIZE_WITH[unit]) }} {{ SIZE_WITH[unit] }} to hole
              {{ setting.to_hole }}</template
            >; {{ setting.set_by }}, {{ whenText(setting.set_at)
            }}{{ setting.words ? `: ${setting.words}` : '' }}
          </p>
          <p v-if="setting.not_to_cut" class="caution mt-1">Not to be cut: {{ setting.not_to_cut }}</p>
        </template>
        <p v-else class="text-lg font-bold">Nobody wrote down how the bar is set in this hole.</p>
      </div>
      <button type="button" class="quiet" :aria-expanded="isOpen" @click="isOpen = !isOpen">
        {{ setting ? 'Set it anew' : 'Write it down' }}
      </button>
    </div>
    <form v-if="isOpen" class="mt-2 grid gap-2" aria-label="How the bar is set" @submit.prevent="write()">
      <div class="grid gap-4 sm:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
        <fieldset class="grid min-w-0 grid-cols-3 gap-2">
          <legend class="sr-only">Feeler gaps</legend>
          <TextField
            v-for="one in GAPS"
            :key="one.name"
            v-model="draft[one.name]"
            :class="one.place"
            :label="`${one.label} [${SIZE_WITH[unit]}]`"
            :path="one.name"
          />
        </fieldset>
        <div class="grid content-start gap-2">
          <ChoiceField v-model="draft.datum" label="Centred on, depths from" :choices="DATUMS" path="datum" />
          <TextField v-model="draft.level" label="Levelled to, how near" path="level" />
          <div class="grid grid-cols-2 gap-2">
            <TextField v-model="draft.to_hole" label="next hole" path="to_hole" />
            <TextField v-model="draft.apart" :label="`lies at [${SIZE_WITH[unit]}]`" path="apart" />
          </div>
        </div>
      </div>
      <div class="grid grid-cols-2 items-end gap-2">
        <TextField v-model="draft.not_to_cut" label="What must not be cut, and why" path="not_to_cut" />
        <TextField v-model="draft.words" label="To do otherwise next time" path="words" />
      </div>
      <button type="submit" class="act min-h-11 justify-self-start" :disabled="busy">Keep the set-up</button>
      <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, () => write(true))" />
    </form>
  </section>
</template>
