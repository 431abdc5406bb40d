<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import type { HoneView } from '@/api/generated'

import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { HoneNow } from './useHone'

/** How a hole is honed: stones, stock of each stage, stroke, what stands below, speeds. Other holes begin with it. */
const props = defineProps<{ now: HoneNow; view: HoneView; jobId: string }>()
const emit = defineEmits<{ kept: [] }>()
const { refusal, busy, send, answer } = useForm()
const size = SIZE_WITH[unit.value]
const small = (metres: number) => lengthText(metres, unit.value)
const s = props.view.setting
const said = (metres: number | null | undefined) =>
  metres == null ? '' : `${lengthText(metres, size)} ${size}`
const stock = (metres: number | undefined, usual: number) => `${small(metres ?? usual)} ${unit.value}`
const draft = useLocalStorage(`vallo-hone-${props.jobId}-${props.view.hole}-${props.view.aim}`, {
  method: s?.method ?? 'oil',
  drive: s?.drive ?? 'honing machine',
  rough_grit: String(s?.rough_grit ?? 70),
  fine_grit: String(s?.fine_grit ?? 220),
  fine_stock: stock(s?.fine_stock_m, 30e-6),
  brush_stock: stock(s?.brush_stock_m, 2.54e-6),
  length: said(s?.length_m ?? (props.view.usual_length_m || null)),
  stone: said(s?.stone_m ?? 0.075),
  below: said(s?.below_m),
  turns: String(s?.turns ?? 90),
  strokes: s ? String(s.strokes) : '',
  angle: String(s?.wanted_deg ?? 45),
  words: '',
})
type Name = keyof typeof draft.value
const put = (path: string, text: string) => {
  if (path in draft.value) draft.value = { ...draft.value, [path as Name]: text }
}
const METHODS = ['oil', 'dry'].map((value) => ({ value, label: value }))
const DRIVES = ['honing machine', 'drill'].map((value) => ({ value, label: value }))
function keep(confirmed = false): Promise<void> {
  return send(async () => {
    const { rough_grit, fine_grit, method, drive, ...typed } = draft.value
    await props.now.set({
      ...typed,
      method: method,
      drive: drive,
      rough_grit: Number(rough_grit) || 0,
      fine_grit: Number(fine_grit) || 0,
      bare_unit: unit.value === 'µm' ? '0.01 mm' : 'thou',
      confirmed,
    })
    draft.value = null
    emit('kept')
  })
}
</script>

<template>
  <form class="max-w-4xl px-4 py-4" aria-label="How it is honed" @submit.prevent="keep()">
    <h2 class="text-2xl">How hole {{ view.hole }} is honed</h2>
    <p class="mb-3 text-ink-soft">Other holes of this job begin with the same.</p>
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-4">
      <ChoiceField v-model="draft.method" label="Stones run" :choices="METHODS" path="method" />
      <ChoiceField v-model="draft.drive" label="Driven by" :choices="DRIVES" path="drive" />
      <TextField v-model="draft.rough_grit" label="Rough stones [grit]" path="rough_grit" whole />
      <TextField v-model="draft.fine_grit" label="Fine stones [grit]" path="fine_grit" whole />
      <TextField
        v-model="draft.fine_stock"
        label="Left for the fine stones"
        path="fine_stock"
        hint="on the diameter"
      />
      <TextField
        v-model="draft.brush_stock"
        label="Left for the brush"
        path="brush_stock"
        hint="0 without one"
      />
      <TextField v-model="draft.length" label="Length of the bore" path="length" />
      <TextField v-model="draft.stone" label="Length of the stones" path="stone" />
      <TextField
        v-model="draft.below"
        label="Free below the bore"
        path="below"
        hint="to what stands there; empty where nothing does"
      />
      <TextField v-model="draft.turns" label="Turns a minute" path="turns" whole />
      <TextField v-model="draft.angle" label="Cross-hatch wanted [°]" path="angle" whole />
      <TextField
        v-model="draft.strokes"
        label="Double strokes a minute"
        path="strokes"
        whole
        hint="empty: what the angle asks for"
      />
      <TextField
        v-model="draft.words"
        class="col-span-2 sm:col-span-4"
        label="To do otherwise next time"
        path="words"
      />
    </div>
    <button type="submit" class="act mt-3 text-lg" :disabled="busy">Keep it</button>
    <RefusalChoices :refusal="refusal" class="mt-2" @answer="(one) => answer(one, put, () => keep(true))" />
  </form>
</template>
