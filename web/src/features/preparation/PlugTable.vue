<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PreparationView } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { useForm } from '@/shared/ui/useForm'

import type { PreparationNow } from './usePreparation'

/** Plugs counted in by place and out again: as long as they differ, wash and release are held. */
const props = defineProps<{ now: PreparationNow; ready: PreparationView }>()
const { refusal, busy, send } = useForm()
const counts = ref<Record<string, string>>({})
const rows = computed(() => {
  const told = new Map(props.ready.plugs.map((one) => [one.place, one]))
  const places = [...new Set([...told.keys(), ...props.ready.unplugged])]
  return places.map((place) => ({ place, one: told.get(place) ?? null }))
})

function count(kind: 'plugs in' | 'plugs out', place: string): Promise<void> {
  return send(async () => {
    await props.now.step({ kind, place, count: Number(counts.value[place] || '0'), words: '' })
    counts.value[place] = ''
  })
}
</script>

<template>
  <section aria-label="Plugs">
    <h2 class="flex items-baseline border-b border-ink text-lg">
      Plugs
      <span class="ml-auto text-sm font-normal" :class="ready.plugs_missing ? 'text-unsure' : 'text-in'">{{
        ready.plugs_missing ? 'wash and release are held' : 'as many out as in'
      }}</span>
    </h2>
    <table class="w-full text-left">
      <thead class="text-sm text-ink-soft">
        <tr>
          <th class="font-normal">where</th>
          <th class="text-right font-normal">in</th>
          <th class="text-right font-normal">out</th>
          <th class="pl-3 font-normal">how many</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.place" class="border-b border-rule">
          <th class="py-1">{{ row.place }}</th>
          <td class="num text-right text-lg">{{ row.one?.went_in ?? '–' }}</td>
          <td
            class="num text-right text-lg"
            :class="row.one && row.one.went_in !== row.one.came_out ? 'font-bold text-unsure' : ''"
          >
            {{ row.one?.came_out ?? '–' }}
          </td>
          <td class="flex justify-end gap-1 py-1 pl-3">
            <input
              v-model="counts[row.place]"
              type="text"
              inputmode="numeric"
              class="field min-h-11 w-14"
              :aria-label="`How many, ${row.place}`"
            />
            <button
              type="button"
              class="quiet min-h-11"
              :disabled="busy"
              :aria-label="`Plugs in, ${row.place}`"
              @click="count('plugs in', row.place)"
            >
              in
            </button>
            <button
              type="button"
              class="quiet min-h-11"
              :disabled="busy || !row.one"
              :aria-label="`Plugs out, ${row.place}`"
              @click="count('plugs out', row.place)"
            >
              out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
