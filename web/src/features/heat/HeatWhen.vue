<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'

import type { DropPlanView } from '@/api/generated'

import { startsOf } from './when'

/** When what has to soak goes in, counted back from the moment it is to drop: kept in this browser. */
const props = defineProps<{ plan: DropPlanView; jobId: string }>()
const at = useLocalStorage(`vallo-drop-at-${props.jobId}`, '09:00')
const starts = computed(() => startsOf(at.value, props.plan))
</script>

<template>
  <section aria-label="When it goes in">
    <label class="flex items-center justify-between gap-3"
      >To drop at<input v-model="at" type="time" class="field min-h-11 w-32" name="drop_at"
    /></label>
    <ol class="grid">
      <li v-for="one in starts" :key="one.what" class="flex justify-between gap-3 border-b border-rule py-1">
        <span>{{ one.what }}</span><b class="num">{{ one.by }}</b>
      </li>
    </ol>
  </section>
</template>
