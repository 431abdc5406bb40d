<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask, asRefusal, Refusal } from '@/api/ask'
import { type PreviewView, previewScan } from '@/api/generated'
import { newId } from '@/shared/newId'
import { ownChange, refresh } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import ScanHead from './ScanHead.vue'
import { sendFile, type Sending } from './sendFile'

/** Bringing a scan in: the head of the file first, its columns and units chosen there; then every point or none. */
const props = defineProps<{ jobId: string; hole: number; invented: boolean }>()
const emit = defineEmits<{ done: [] }>()

const file = ref<File | null>(null)
const preview = ref<PreviewView | null>(null)
const refusal = ref<Refusal | null>(null)
const progress = ref<number | null>(null)
const taken = ref<number | null>(null)
const form = ref({
  kind: 'angle, level, radius',
  columns: ['0', '1', '2'],
  unit: 'mm',
  depthUnit: 'mm',
  front: '+x',
  turn: 'clockwise',
  up: false,
  frontDeg: '0',
  load: '',
  instrument: '',
})
let sending: Sending | null = null
let id = newId()
const isPolar = computed(() => form.value.kind === 'angle, level, radius')
const LABELS = computed(() => (isPolar.value ? ['Angle', 'Level', 'Radius'] : ['x', 'y', 'z']))
const asChoices = (values: readonly string[]) => values.map((value) => ({ value, label: value }))
const columns = computed(() =>
  (preview.value?.names ?? []).map((name, at) => ({ value: String(at), label: name })),
)
const LOADS = ['', 'free, no plate', 'torque plate on, gasket in', 'torque plate on, no gasket', 'head on']

/** Only the head travels for the preview, however long the file is. */
async function look(chosen: File): Promise<void> {
  file.value = chosen
  preview.value = null
  refusal.value = null
  taken.value = null
  id = newId()
  try {
    const head = new File([chosen.slice(0, 60_000)], chosen.name, { type: 'text/csv' })
    const found = await ask(previewScan({ path: { job_id: props.jobId }, body: { file: head } }))
    preview.value = found
    Object.assign(form.value, {
      kind: found.kind,
      columns: found.columns.map(String),
      unit: found.unit,
      depthUnit: found.depth_unit,
    })
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
async function bringIn(): Promise<void> {
  if (!file.value) return
  refusal.value = null
  progress.value = 0
  const { kind, columns: at, unit, depthUnit, front, turn, up, frontDeg, load, instrument } = form.value
  sending = sendFile(
    `/api/jobs/${props.jobId}/scans`,
    file.value,
    {
      scan_id: id,
      hole: String(props.hole),
      person_id: personId.value,
      kind,
      first: at[0] ?? '0',
      second: at[1] ?? '1',
      third: at[2] ?? '2',
      unit,
      depth_unit: depthUnit,
      front,
      turn,
      depth_is_up: String(up),
      front_deg: frontDeg.trim() || '0',
      load,
      instrument,
    },
    (share) => (progress.value = share),
  )
  try {
    await ownChange(props.jobId, async () => {
      const answer = (await sending?.answer) as { points: number }
      taken.value = answer.points
    })
    await refresh(props.jobId)
    emit('done')
  } catch (error) {
    refusal.value = error instanceof Refusal ? error : asRefusal(error)
  } finally {
    progress.value = null
    sending = null
  }
}
const problem = (path: string) => refusal.value?.problems.find((one) => one.field === path)?.message ?? ''
</script>

<template>
  <form class="grid gap-2 border-t border-rule pt-2" aria-label="Bring in a scan" @submit.prevent="bringIn">
    <div class="flex flex-wrap items-end gap-3">
      <FileField
        label="File of the instrument"
        accept=".csv,.txt,text/csv"
        hint="CSV, a million points at most"
        :largest-mb="80"
        @chosen="look"
      />
      <p v-if="invented" class="text-sm text-ink-soft">
        No instrument at hand: the simulated one writes
        <a class="link" :href="`/api/jobs/${jobId}/simulated-scan.csv?hole=${hole}`" download="free.csv"
          >this bore free</a
        >
        or
        <a
          class="link"
          :href="`/api/jobs/${jobId}/simulated-scan.csv?hole=${hole}&clamped=true`"
          download="clamped.csv"
          >clamped</a
        >.
      </p>
    </div>
    <template v-if="preview">
      <ScanHead :preview="preview" :columns="form.columns" :labels="LABELS" />
      <div class="grid gap-x-3 gap-y-2 sm:grid-cols-4">
        <ChoiceField
          v-model="form.kind"
          label="The file holds"
          :choices="asChoices(['angle, level, radius', 'x, y, z'])"
          path="kind"
        />
        <ChoiceField
          v-for="(label, at) in LABELS"
          :key="label"
          v-model="form.columns[at] as string"
          :label="label"
          :choices="columns"
          path="columns"
        />
        <ChoiceField
          v-model="form.unit"
          :label="isPolar ? 'Radius in' : 'x and y in'"
          :choices="asChoices(['mm', 'µm', 'm', 'inch', 'thou'])"
          path="unit"
        />
        <ChoiceField
          v-model="form.depthUnit"
          label="Depth in"
          :choices="asChoices(['mm', 'µm', 'm', 'inch', 'thou'])"
          path="depth_unit"
        />
        <TextField
          v-if="isPolar"
          v-model="form.frontDeg"
          label="Front of the engine at"
          unit="°"
          path="front_deg"
        />
        <ChoiceField
          v-else
          v-model="form.front"
          label="Front of the engine at"
          :choices="asChoices(['+x', '-x', '+y', '-y'])"
          path="front"
        />
        <ChoiceField
          v-model="form.turn"
          label="Seen from above, angles grow"
          :choices="asChoices(['clockwise', 'counter-clockwise'])"
          path="turn"
        />
        <ChoiceField
          v-model="form.load"
          label="Bore held"
          :choices="LOADS.map((value) => ({ value, label: value || 'not said' }))"
          path="load"
        />
        <TextField v-model="form.instrument" label="Instrument" path="instrument" />
        <label class="flex items-end gap-2 pb-2 text-sm"
          ><input v-model="form.up" type="checkbox" /> depth is counted upwards</label
        >
      </div>
      <p
        v-for="path in ['unit', 'depth_unit', 'columns'].filter((one) => problem(one))"
        :key="path"
        class="text-sm text-out"
      >
        {{ problem(path) }}
      </p>
      <div class="flex items-center gap-3">
        <button type="submit" class="act" :disabled="progress !== null">Bring it in</button>
        <template v-if="progress !== null">
          <progress class="w-48" :value="progress" max="1" aria-label="How far the file is" />
          <span class="text-sm">{{
            progress < 1 ? `${Math.round(progress * 100)} % sent` : 'working out its levels …'
          }}</span>
          <button type="button" class="quiet" @click="sending?.giveUp()">Give up, keep nothing</button>
        </template>
      </div>
    </template>
    <p v-if="taken !== null" role="status" class="border-l-4 border-in py-1 pl-3">
      {{ taken.toLocaleString('en') }} points are in.
    </p>
    <RefusalNote v-if="refusal" :refusal="refusal" />
  </form>
</template>
