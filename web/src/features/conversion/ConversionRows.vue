<script setup lang="ts">
import { computed } from 'vue'

import type { ConversionView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { unit } from '@/shared/state/preferences'

import { labelsOf } from './labels'

/** Every hole in a row, every part of the conversion in a column. */
const props = defineProps<{ view: ConversionView; chosen: number }>()
const emit = defineEmits<{ choose: [hole: number] }>()
const rows = computed(() =>
  props.view.holes.map((one) => ({ one, labels: labelsOf(one, props.view.decking, unit.value) })),
)
const briefly = (value: string) => value.replace('squeezed ', '').split(',')[0] ?? value
const columns = computed(() => rows.value[0]?.labels.map((label) => label.short) ?? [])
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Holes">
    <table class="w-full border-collapse text-[0.95rem]">
      <thead class="text-left text-sm text-ink-soft">
        <tr class="border-b-2 border-ink align-bottom">
          <th scope="col" class="py-1 pr-2 font-normal">hole</th>
          <th v-for="what in columns" :key="what" scope="col" class="px-2 font-normal">{{ what }}</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.one.hole"
          class="cursor-pointer border-b border-rule"
          :class="row.one.hole === chosen ? 'bg-part-wash' : 'hover:bg-sheet'"
          @click="emit('choose', row.one.hole)"
        >
          <th scope="row" class="py-1.5 pr-2 text-left whitespace-nowrap">
            {{ row.one.hole }}
            <span class="text-sm font-normal text-ink-soft"
              >{{ row.one.liner }}{{ row.one.is_home ? ', home' : '' }}</span
            >
          </th>
          <td v-for="label in row.labels" :key="label.what" class="px-2 py-1.5">
            <span class="flex items-center gap-1.5 whitespace-nowrap"
              ><StateGate v-if="label.state" :state="label.state" /><span class="num">{{
                briefly(label.value)
              }}</span></span
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
