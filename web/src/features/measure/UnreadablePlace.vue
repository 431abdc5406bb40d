<script setup lang="ts">
import { ref } from 'vue'

import type { SurveyBench } from './useSurvey'

/** A place that cannot be read is said with its reason; the part is then undecided, never silently short. */
const props = defineProps<{ bench: SurveyBench }>()
const reason = ref('')
const { here } = props.bench
</script>

<template>
  <p v-if="here?.unreadable" class="mt-2 text-unsure">
    Cannot be read: {{ here.unreadable }}
    <button type="button" class="link ml-2" @click="bench.sayUnreadable(false, '')">
      It can be read after all
    </button>
  </p>
  <details v-else class="mt-2">
    <summary class="min-h-8 cursor-pointer">This place cannot be read</summary>
    <form class="flex flex-wrap items-end gap-3 pt-1" @submit.prevent="bench.sayUnreadable(true, reason)">
      <label class="text-sm text-ink-soft"
        >Why
        <input v-model="reason" class="field" maxlength="120" placeholder="a port in the way" />
      </label>
      <button type="submit" class="quiet min-h-11">Say so</button>
    </form>
  </details>
</template>
