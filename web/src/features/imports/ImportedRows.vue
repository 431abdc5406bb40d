<script setup lang="ts">
import { computed } from 'vue'

import type { ImportedRow } from '@/api/generated'

/** Rows of a file with what becomes of each; the bad ones stand first. */
const props = defineProps<{ rows: ImportedRow[] }>()
const MOST_SHOWN = 400
const inOrder = computed(() => [
  ...props.rows.filter((row) => row.verdict === 'bad'),
  ...props.rows.filter((row) => row.verdict !== 'bad'),
])
const shown = computed(() => inOrder.value.slice(0, MOST_SHOWN))
const WORDS = { good: 'good', bad: 'bad', 'here already': 'here' }
</script>

<template>
  <table class="w-full border-collapse">
    <thead>
      <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
        <th scope="col" class="py-1 pr-4 text-right font-normal">row</th>
        <th scope="col" class="pr-4 font-normal">where</th>
        <th scope="col" class="pr-4 text-right font-normal">reading</th>
        <th scope="col" class="w-full font-normal">what becomes of it</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="row in shown"
        :key="row.number"
        class="border-b border-rule align-top"
        :class="row.verdict === 'bad' && 'bg-act-wash'"
      >
        <td class="num py-1 pr-4 text-right text-ink-soft">{{ row.number }}</td>
        <td class="py-1 pr-4 whitespace-nowrap">{{ row.where }}</td>
        <td class="num py-1 pr-4 text-right">{{ row.words }}</td>
        <td class="py-1">
          <b
            :class="row.verdict === 'bad' ? 'text-out' : row.verdict === 'good' ? 'text-in' : 'text-ink-soft'"
            >{{ WORDS[row.verdict] }}</b
          >
          {{ row.message }}
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="inOrder.length > shown.length" class="py-2 text-ink-soft">
    and {{ inOrder.length - shown.length }} more
  </p>
</template>
