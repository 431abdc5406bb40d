<script setup lang="ts">
import { ref, watch } from 'vue'

import { hasVoice, speakNow } from '@/shared/state/readBack'
import PhraseText from '@/shared/ui/PhraseText.vue'

import type { PictureOf } from './pictures'

/** A sheet with what is written on it; what is meant for the ear is heard where this machine has a voice, else read. */
const props = defineProps<{ sheet: PictureOf<'facts'> }>()
const voice = hasVoice()
const isRead = ref(false)
watch(
  () => props.sheet.say,
  () => (isRead.value = false),
)
</script>

<template>
  <section :aria-label="sheet.title" class="rounded-sm border border-rule bg-sheet px-4 py-3">
    <h2 class="font-bold">{{ sheet.title }}</h2>
    <div v-if="sheet.say" class="mt-2 flex flex-wrap items-center gap-3">
      <button v-if="voice" type="button" class="act text-lg" @click="speakNow(sheet.say)">Say it</button>
      <button v-if="voice && !isRead" type="button" class="quiet" @click="isRead = true">
        Read it instead
      </button>
      <q v-if="!voice || isRead" class="text-2xl font-bold">{{ sheet.say }}</q>
    </div>
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
