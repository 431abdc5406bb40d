<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import {
  type FloorStrip,
  listJobs,
  listShelf,
  moveShims,
  putOnShelf,
  type ShimLotView,
  type ShimMoveKind,
} from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { newId } from '@/shared/newId'
import { personId, unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** The shelf of shims: every lot with what was measured of it, what is kept for whom, what is on its way. */
const { data: lots, refusal: missing, load } = useLoaded<ShimLotView[]>(() => ask(listShelf()))
const jobs = useLoaded<FloorStrip[]>(() => ask(listJobs()))
const { refusal, busy, send, answer } = useForm()
const empty = { size: '', count: '', measured: '', lot: '', price: '', outside: '', side: 'bevel down' }
const draft = ref({ ...empty })
const moved = ref({ lot: '', kind: 'reserved', count: '1', job: '' })
const SIDES = ['bevel down', 'bevel up', 'no bevel'].map((value) => ({ value, label: value }))
const KINDS = [
  { value: 'reserved', label: 'keep for a job' },
  { value: 'released', label: 'free again' },
  { value: 'ordered', label: 'ordered' },
  { value: 'arrived', label: 'arrived' },
  { value: 'scrapped', label: 'bent, thrown away' },
]
const size = (metres: number | null) => (metres === null ? '–' : lengthText(metres, SIZE_WITH[unit.value]))
const lotChoices = computed(() => [
  { value: '', label: 'Choose the lot' },
  ...(lots.value ?? []).map((one) => ({ value: one.shim_lot_id, label: `${one.typed} ${one.lot}`.trim() })),
])
const jobChoices = computed(() => [
  { value: '', label: 'no job' },
  ...(jobs.data.value ?? []).map((one) => ({ value: one.job.job_id, label: one.job.name })),
])
const ofJob = computed(() => ['reserved', 'released'].includes(moved.value.kind))
const put = (path: string, text: string) => Object.assign(draft.value, { [path]: text })

const add = (confirmed = false): Promise<void> =>
  send(async () => {
    const { count, side, ...rest } = draft.value
    const body = {
      ...rest,
      shim_lot_id: newId(),
      count: Number(count || '0'),
      side_up: side as 'bevel down',
      confirmed,
      person_id: personId.value,
    }
    await ask(putOnShelf({ body }))
    draft.value = { ...empty }
    await load()
  })
const move = (): Promise<void> =>
  send(async () => {
    const { lot, kind, count, job } = moved.value
    const body = {
      shim_move_id: newId(),
      shim_lot_id: lot,
      kind: kind as ShimMoveKind,
      count: Number(count || '0'),
      job_id: ofJob.value && job ? job : null,
      person_id: personId.value,
    }
    await ask(moveShims({ body }))
    await load()
  })
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <h1 class="text-xl">Shelf of shims</h1>
    <RefusalNote v-if="!lots" :refusal="missing" />
    <div v-else class="mt-2 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,8fr)_minmax(0,4fr)]">
      <div class="relative overflow-x-auto">
        <table class="w-full text-left" aria-label="Lots of shims">
          <thead class="text-sm text-ink-soft">
            <tr class="border-b border-ink">
              <th class="py-1 font-normal">size</th>
              <th class="text-right font-normal">measured [{{ SIZE_WITH[unit] }}]</th>
              <th class="pl-4 font-normal">lot</th>
              <th class="text-right font-normal">outside</th>
              <th class="pl-4 font-normal">up</th>
              <th class="text-right font-normal">each</th>
              <th class="text-right font-normal">on the shelf</th>
              <th class="text-right font-normal">kept</th>
              <th class="text-right font-normal">coming</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in lots" :key="one.shim_lot_id" class="border-b border-rule">
              <th class="num py-1.5">{{ one.typed }}</th>
              <td class="num text-right">{{ size(one.measured_m) }}</td>
              <td class="pl-4">{{ one.lot || '–' }}</td>
              <td class="num text-right">{{ size(one.outside_m) }}</td>
              <td class="pl-4">{{ one.side_up }}</td>
              <td class="num text-right">{{ one.price === null ? '–' : one.price.toFixed(2) }}</td>
              <td class="num text-right text-lg" :class="one.on_shelf === 0 && 'font-bold text-unsure'">
                {{ one.on_shelf }}
              </td>
              <td class="num text-right">{{ one.reserved || '–' }}</td>
              <td class="num text-right">{{ one.ordered || '–' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="lots.length === 0" class="py-4 text-ink-soft">
          The shelf is empty. Until a size lies here, plans take the number from the spec card.
        </p>
        <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, add)" />
      </div>
      <div class="grid content-start gap-6">
        <form class="grid grid-cols-2 gap-2" aria-label="Move shims" @submit.prevent="move">
          <h2 class="col-span-2 border-b border-ink text-lg">Keep, order, take in</h2>
          <ChoiceField
            v-model="moved.lot"
            class="col-span-2"
            label="Lot"
            :choices="lotChoices"
            path="shim_lot_id"
          />
          <ChoiceField v-model="moved.kind" label="What" :choices="KINDS" path="kind" />
          <TextField v-model="moved.count" label="How many" path="count" whole />
          <ChoiceField
            v-if="ofJob"
            v-model="moved.job"
            class="col-span-2"
            label="For"
            :choices="jobChoices"
            path="job_id"
          />
          <button type="submit" class="quiet min-h-11" :disabled="busy || moved.lot === ''">
            Write it down
          </button>
        </form>
        <form class="grid grid-cols-2 gap-2" aria-label="A new lot" @submit.prevent="add()">
          <h2 class="col-span-2 border-b border-ink text-lg">A new lot</h2>
          <TextField v-model="draft.size" label="Size" bare="mm" path="size" />
          <TextField v-model="draft.measured" label="Measured" bare="mm" path="measured" />
          <TextField v-model="draft.count" label="How many" path="count" whole />
          <TextField v-model="draft.lot" label="Lot" path="lot" />
          <TextField v-model="draft.outside" label="Outside diameter" bare="mm" path="outside" />
          <TextField v-model="draft.price" label="Each" path="price" />
          <ChoiceField v-model="draft.side" label="Side up" :choices="SIDES" path="side_up" />
          <div class="flex items-end">
            <button type="submit" class="quiet min-h-11" :disabled="busy || draft.size === ''">
              Put it on the shelf
            </button>
          </div>
        </form>
      </div>
    </div>
  </main>
</template>
