<script setup lang="ts">
import type { HeatWayView } from '@/api/generated'

import { span } from './chart'

/** Every way to the clearance wanted beside each other: what each asks for, what stands against it. */
defineProps<{ ways: HeatWayView[] }>()
const emit = defineEmits<{ choose: [pair: { block_c: number; liner_c: number }] }>()
const celsius = (c: number | null) => (c === null ? '–' : `${Math.round(c)} °C`)
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Ways">
    <table class="w-full border-collapse">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b-2 border-ink">
          <th scope="col" class="py-1 text-left font-normal">way</th>
          <th scope="col" class="px-2 text-right font-normal">block</th>
          <th scope="col" class="px-2 text-right font-normal">liner</th>
          <th scope="col" class="px-2 text-right font-normal">soak</th>
          <th scope="col" class="px-2 text-left font-normal">asks for, and what stands against it</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="way in ways" :key="way.name" class="border-b border-rule align-top">
          <th scope="row" class="py-1.5 text-left font-bold">
            <button
              v-if="way.block_c !== null && way.liner_c !== null"
              type="button"
              class="link text-left"
              @click="emit('choose', { block_c: Math.ceil(way.block_c), liner_c: Math.floor(way.liner_c) })"
            >
              {{ way.name }}
            </button>
            <span v-else class="font-normal text-ink-soft">{{ way.name }}</span>
          </th>
          <td class="num px-2 py-1.5 text-right">{{ celsius(way.block_c) }}</td>
          <td class="num px-2 py-1.5 text-right">{{ celsius(way.liner_c) }}</td>
          <td class="num px-2 py-1.5 text-right">{{ way.soak_s === null ? '' : span(way.soak_s) }}</td>
          <td class="px-2 py-1.5 text-sm">
            <template v-if="way.block_c === null || way.liner_c === null">does not reach it</template>
            <template v-if="way.boils_kg">{{ way.boils_kg.toFixed(1) }} kg of {{ way.medium }}. </template>
            <span v-if="way.against.length" class="text-out">{{ way.against.join('; ') }}</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
