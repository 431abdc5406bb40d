<script setup lang="ts">
import type { PreviewView } from '@/api/generated'

/** The first rows of a file as they were taken apart, with what each column is taken for. */
defineProps<{ preview: PreviewView; columns: string[]; labels: string[] }>()
</script>

<template>
  <div class="relative overflow-x-auto">
    <table class="border-collapse text-sm" aria-label="Head of the file">
      <thead>
        <tr class="border-b border-ink-soft text-ink-soft">
          <th
            v-for="(name, at) in preview.names"
            :key="at"
            scope="col"
            class="px-3 py-1 text-right font-normal"
          >
            {{ name }}
            <b v-if="columns.includes(String(at))" class="block text-ink">{{
              labels[columns.indexOf(String(at))]
            }}</b>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, at) in preview.rows.slice(0, 4)" :key="at" class="border-b border-rule">
          <td v-for="(cell, column) in row" :key="column" class="num px-3 py-1 text-right">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
