<script setup lang="ts">
import { computed } from 'vue'

import type { SpecCard } from '@/api/generated'

import { differingFields, valueAt, wordsOf } from './cardDraft'

/** Two people edited one card: every field that differs with both values, and whose version comes next. */
const props = defineProps<{ message: string; theirs: SpecCard; mine: SpecCard }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()
const rows = computed(() =>
  differingFields(props.theirs, props.mine).map((path) => ({
    path,
    words: wordsOf(path),
    theirs: valueAt(props.theirs, path),
    mine: valueAt(props.mine, path),
  })),
)
</script>

<template>
  <div role="alert" class="my-2 border-l-4 border-unsure py-1 pl-3">
    <p>{{ message }}</p>
    <table v-if="rows.length" class="mt-2 border-collapse text-sm" aria-label="What differs">
      <thead>
        <tr class="border-b border-ink-soft text-left text-ink-soft">
          <th scope="col" class="pr-6 font-normal">field</th>
          <th scope="col" class="pr-6 font-normal">saved meanwhile</th>
          <th scope="col" class="font-normal">yours</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.path" class="border-b border-rule">
          <th scope="row" class="py-1 pr-6 text-left font-normal">{{ row.words }}</th>
          <td class="num pr-6 whitespace-normal">{{ row.theirs }}</td>
          <td class="num font-bold whitespace-normal">{{ row.mine }}</td>
        </tr>
      </tbody>
    </table>
    <p v-else>Both say the same.</p>
    <div class="mt-2 flex gap-3">
      <button type="button" class="act" @click="emit('mine')">Save mine on top: all of “yours”</button>
      <button type="button" class="quiet" @click="emit('theirs')">Take theirs, drop mine</button>
    </div>
  </div>
</template>
