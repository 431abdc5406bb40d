<script setup lang="ts">
import { computed, reactive } from 'vue'

import type { BlockView } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useJobUndo } from '@/shared/state/useUndo'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'

import { READY, useFitRows } from './useFitRows'

/** Liners going in, one row a hole: what is proposed stands there, one tick says that it was looked at. */
const props = defineProps<{ block: BlockView }>()
const job = useJob()
const { open, drafts, asked, ready, busy, record, again, answer } = useFitRows(
  job,
  useJobUndo(),
  () => props.block,
)
const reasons = reactive<Record<string, string>>({})
const marks = computed(() =>
  props.block.liners.filter((one) => one.hole === null).map((one) => one.liner.mark),
)
const lookedAt = READY.join('; ')
</script>

<template>
  <p v-if="open.length === 0" class="py-4 text-lg">
    A liner stands in every hole.
    <RouterLink class="link" :to="{ name: 'home', params: { job: job.jobId } }">To the block</RouterLink>
  </p>
  <form v-else class="grid gap-3 py-2" aria-label="Liners going in" @submit.prevent="record()">
    <p class="caution">
      Liners are heavy and sharp at the ends, pullers throw parts: lift with help, stand aside. Local rules
      and licensed practice come first.
    </p>
    <p>
      Tick a hole once all of it was looked at there: <b>{{ lookedAt }}</b>.
    </p>
    <div class="relative overflow-x-auto">
      <table class="w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-1 font-normal">Hole</th>
            <th scope="col" class="px-1 font-normal">liner</th>
            <th scope="col" class="px-1 font-normal">shim under it, bevel down</th>
            <th scope="col" class="px-1 font-normal">as measured</th>
            <th scope="col" class="px-1 font-normal">looked at</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="hole in open" :key="hole.hole_id">
            <tr v-if="drafts[hole.hole_id]" class="border-t border-rule">
              <th scope="row" class="pr-2 text-left">{{ hole.number }}</th>
              <td class="p-1">
                <select
                  v-model="drafts[hole.hole_id]!.liner"
                  class="h-11 w-full min-w-20 border border-rule bg-sheet px-2"
                  :aria-label="`Liner for hole ${hole.number}`"
                >
                  <option value="">choose</option>
                  <option v-for="mark in marks" :key="mark" :value="mark">{{ mark }}</option>
                </select>
              </td>
              <td class="p-1">
                <input
                  v-model="drafts[hole.hole_id]!.shim"
                  class="num h-11 w-full min-w-20 border border-rule bg-sheet px-2 text-right"
                  :aria-label="`Shim under hole ${hole.number}`"
                  placeholder="none"
                />
              </td>
              <td class="p-1">
                <input
                  v-model="drafts[hole.hole_id]!.measured"
                  class="num h-11 w-full min-w-20 border border-rule bg-sheet px-2 text-right"
                  :aria-label="`Shim of hole ${hole.number} as measured`"
                  :disabled="drafts[hole.hole_id]!.shim === ''"
                />
              </td>
              <td class="p-1">
                <label class="flex min-h-11 items-center gap-2">
                  <input v-model="drafts[hole.hole_id]!.ready" type="checkbox" class="size-6" />
                  hole {{ hole.number }}
                </label>
              </td>
            </tr>
            <tr v-if="asked[hole.hole_id]">
              <td colspan="5" class="py-2">
                <HoldReason
                  v-model="reasons[hole.hole_id] as string"
                  :refusal="asked[hole.hole_id] ?? null"
                  @pass="again(hole, true, reasons[hole.hole_id] ?? '')"
                />
                <RefusalChoices
                  v-if="asked[hole.hole_id]?.code !== 'hold point'"
                  :refusal="asked[hole.hole_id] ?? null"
                  @answer="answer(hole, $event)"
                />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <div class="flex flex-wrap items-center gap-4">
      <button type="submit" class="act" :disabled="busy || ready.length === 0">
        {{
          ready.length ? `Record ${ready.length} ${ready.length === 1 ? 'fit' : 'fits'}` : 'Record the fits'
        }}
      </button>
      <span class="text-sm text-ink-soft"
        >Two shims, or another side up:
        <RouterLink class="link" :to="{ name: 'cut', params: { job: job.jobId, hole: open[0]?.number } }"
          >fit that hole by itself</RouterLink
        >.</span
      >
    </div>
  </form>
</template>
