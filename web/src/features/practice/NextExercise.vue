<script setup lang="ts">
import type { NextView } from '@/api/generated'

import { useBegin } from './useBegin'

/** The exercise to take next, by what was missed. */
defineProps<{ next: NextView; again?: string }>()
const { begin, form } = useBegin()
</script>

<template>
  <section aria-label="Next" class="no-print self-start bg-plate p-4 text-plate-text">
    <h2 class="text-sm font-normal text-plate-soft">Next: {{ next.why }}</h2>
    <p class="text-lg font-bold">{{ next.title }}</p>
    <p v-if="form.refusal.value" role="alert" class="mt-1">{{ form.refusal.value.message }}</p>
    <div class="mt-2 flex flex-wrap items-center gap-3">
      <button type="button" class="act" :disabled="form.busy.value" @click="begin(next.exercise)">
        Begin
      </button>
      <button
        v-if="again && again !== next.exercise"
        type="button"
        class="text-plate-act underline underline-offset-4"
        :disabled="form.busy.value"
        @click="begin(again)"
      >
        This one again, with other numbers
      </button>
    </div>
  </section>
</template>
