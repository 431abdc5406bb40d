<script setup lang="ts">
import PhraseText from '@/shared/ui/PhraseText.vue'
import { speakNow } from '@/shared/state/readBack'

import type { PictureOf } from './pictures'

/** A sheet with what is written on it; where it is meant for the ear, it is read out. */
defineProps<{ sheet: PictureOf<'facts'> }>()
</script>

<template>
  <section :aria-label="sheet.title" class="rounded-sm border border-rule bg-sheet px-4 py-3">
    <h2 class="font-bold">{{ sheet.title }}</h2>
    <button v-if="sheet.say" type="button" class="quiet mt-2" @click="speakNow(sheet.say)">Say it</button>
    <dl class="mt-1 divide-y divide-rule">
      <div v-for="row in sheet.rows" :key="row.name" class="flex flex-wrap justify-between gap-x-4 py-1.5">
        <dt class="text-ink-soft">{{ row.name }}</dt>
        <dd :class="row.tone === 'wrong' ? 'font-bold text-out' : row.tone === 'truth' ? 'font-bold' : ''">
          <PhraseText :phrase="row.value" />
        </dd>
      </div>
    </dl>
  </section>
</template>
