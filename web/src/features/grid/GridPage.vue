<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { Quantity } from '@/api/generated'
import { bareWords, bareUnit } from '@/shared/format/bareUnit'
import { hourText } from '@/shared/format/clock'
import { SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import { useJobUndo } from '@/shared/state/useUndo'
import AsFound from '@/shared/ui/AsFound.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import SetupDialog from '@/shared/ui/SetupDialog.vue'

import { type GridCell, type GridOf, quantitiesOf, rowsOf, walked } from './cells'
import FitGrid from './FitGrid.vue'
import GridCellField from './GridCellField.vue'
import GridTabs from './GridTabs.vue'
import NotePhoto from './NotePhoto.vue'
import PastePanel from './PastePanel.vue'
import { useGrid } from './useGrid'

/** Every ledge, flange or protrusion of a block in one grid, as fast as on paper: type, Tab, type. */
const job = useJob()
const route = useRoute()
const router = useRouter()
const undo = useJobUndo()
const grid = useGrid(job, undo)
const block = computed(() => job.block.value)
const lenses = computed(() => (block.value?.lenses ?? []).map((one) => one.name))
const of = computed<GridOf | 'fits'>(() => {
  const asked = route.query['of']
  if (asked === 'protrusion' || asked === 'fits' || asked === 'ledges') return asked
  return lenses.value.includes('counterbore') ? 'ledges' : 'protrusion'
})
const rows = computed(() => (block.value && of.value !== 'fits' ? rowsOf(block.value, of.value) : []))
const cells = computed(() => walked(rows.value))
const hasFlanges = computed(() => rows.value.some((row) => row.flange !== null))
const askedCells = computed(() => cells.value.filter((cell) => grid.asked[cell.key]))
const left = computed(() => cells.value.filter((cell) => grid.typed.value[cell.key] && !grid.asked[cell.key]))
const setting = ref<Quantity | null>(null)
const gauges = computed(() =>
  (of.value === 'fits' ? [] : quantitiesOf(of.value)).map((quantity) => ({
    quantity,
    name: block.value?.setups.find((one) => one.quantity === quantity)?.gauge.name ?? '',
  })),
)
const bare = computed(() =>
  bareWords(bareUnit(of.value === 'protrusion' ? 'protrusion' : 'counterbore depth', unit.value)),
)

const table = ref<HTMLElement | null>(null)
/** Enter goes down the column, as a hand goes down a sheet; from the last it stays. */
function move(cell: GridCell, down: number): void {
  const at = rows.value.findIndex((row) => [row.flange, ...row.cells].some((one) => one?.key === cell.key))
  const row = rows.value[at]
  const column = row ? row.cells.findIndex((one) => one.key === cell.key) : -1
  const next = rows.value[at + down]
  const to = next && (column < 0 ? next.flange : next.cells[column])
  void grid.take(cell)
  if (to) table.value?.querySelector<HTMLInputElement>(`[data-cell="${CSS.escape(to.key)}"]`)?.focus()
}

const pasted = ref({ text: '', from: '' })
function show(to: GridOf | 'fits'): void {
  void router.replace({ query: { of: to } })
}
</script>

<template>
  <main v-if="block" class="mx-auto w-full max-w-4xl px-5 py-3 max-sm:px-3">
    <div class="flex flex-wrap items-center gap-x-6 gap-y-2">
      <h1 class="text-xl">All holes at once</h1>
      <GridTabs :of="of" :lenses="lenses" @show="show" />
    </div>
    <FitGrid v-if="of === 'fits'" :block="block" />
    <template v-else>
      <p class="py-2 text-sm text-ink-soft">
        Type and Tab: a cell is taken when it is left, Enter goes down. A bare number is {{ bare }}.
        <span v-for="one in gauges" :key="one.quantity" class="mr-3 inline-block">
          {{ one.quantity }} {{ one.name ? `with ${one.name}` : 'has no gauge yet' }}:
          <button
            type="button"
            class="link"
            :aria-label="`${one.name ? 'change' : 'choose the gauge'}: gauge for ${one.quantity}`"
            @click="setting = one.quantity"
          >
            {{ one.name ? 'change' : 'choose the gauge' }}
          </button>
        </span>
      </p>
      <AsFound />
      <div ref="table" class="relative overflow-x-auto">
        <table class="w-full border-collapse">
          <thead>
            <tr class="border-b border-ink-soft text-sm text-ink-soft">
              <th scope="col" class="py-1 text-left font-normal">Hole</th>
              <th v-if="hasFlanges" scope="col" class="px-1 text-right font-normal">
                flange, {{ SIZE_WITH[unit] }}
              </th>
              <th
                v-for="hour in block.card.required_hours"
                :key="hour"
                scope="col"
                class="px-1 text-right font-normal"
              >
                {{ of === 'ledges' ? 'ledge' : '' }} {{ hourText(hour) }}
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.hole.hole_id" class="border-b border-rule">
              <th scope="row" class="pr-2 text-left whitespace-nowrap">
                {{ row.hole.number }}
                <span v-if="row.flange" class="text-sm font-normal text-ink-soft">{{
                  row.flange.place.liner_mark
                }}</span>
              </th>
              <td v-if="hasFlanges" class="p-1">
                <GridCellField
                  v-if="row.flange"
                  :cell="row.flange"
                  :text="grid.typed.value[row.flange.key]?.text ?? ''"
                  :asked="!!grid.asked[row.flange.key]"
                  :busy="grid.underWay.value.has(row.flange.key)"
                  @type="grid.type(row.flange, $event)"
                  @leave="grid.take(row.flange)"
                  @move="move(row.flange, $event)"
                  @paste="pasted = { text: $event, from: row.flange.key }"
                />
              </td>
              <td v-for="cell in row.cells" :key="cell.key" class="p-1">
                <GridCellField
                  :cell="cell"
                  :text="grid.typed.value[cell.key]?.text ?? ''"
                  :asked="!!grid.asked[cell.key]"
                  :busy="grid.underWay.value.has(cell.key)"
                  @type="grid.type(cell, $event)"
                  @leave="grid.take(cell)"
                  @move="move(cell, $event)"
                  @paste="pasted = { text: $event, from: cell.key }"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <section v-if="askedCells.length" aria-label="Asked about" class="grid gap-2 py-3">
        <div v-for="cell in askedCells" :key="cell.key" class="flex flex-wrap items-center gap-x-3">
          <b>{{ cell.name }}, “{{ grid.typed.value[cell.key]?.text }}”</b>
          <RefusalChoices
            class="min-w-0 flex-1"
            :refusal="grid.asked[cell.key] ?? null"
            @answer="grid.answer(cell, $event)"
            @read-before="grid.answerReadBefore(cell, $event)"
          />
          <button type="button" class="quiet" @click="grid.drop(cell)">Leave it out</button>
        </div>
      </section>
      <div v-if="left.length" class="flex items-center gap-4 py-3">
        <button type="button" class="act" @click="grid.takeAll(left)">
          Take {{ left.length === 1 ? 'what is typed' : `all ${left.length} typed` }}
        </button>
        <span class="text-sm text-ink-soft"
          >Each goes through the same questions as one typed on the block.</span
        >
      </div>
      <PastePanel
        v-if="block"
        :block="block"
        :of="of"
        :cells="cells"
        :rows="rows"
        :pasted="pasted"
        @put="(cell, text) => grid.type(cell, text)"
      />
      <NotePhoto :last-taken="grid.lastTaken.value" :undo="undo" />
      <SetupDialog
        v-if="setting"
        :key="setting"
        :open="setting !== null"
        :block="block"
        :job-id="job.jobId"
        :quantity="setting"
        @close="setting = null"
        @changed="job.reload()"
      />
    </template>
  </main>
</template>
