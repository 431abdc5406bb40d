<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Bench } from './useBench'

/** A position that cannot be read is said with its reason; the hole is then undecided, never silently short. */
const props = defineProps<{ bench: Bench }>()
const reason = ref('')
const said = computed(() =>
  props.bench.hole.value?.unreadable.find((one) => one.hour === props.bench.spot.value?.hour),
)
</script>

<template>
  <p v-if="said" class="mt-3 text-unsure">
    Cannot be read: {{ said.reason }}
    <button type="button" class="link ml-2" @click="bench.sayUnreadable(false, '')">
      It can be read after all
    </button>
  </p>
  <details v-else class="mt-3">
    <summary class="min-h-8 cursor-pointer">This position cannot be read</summary>
    <form class="flex flex-wrap items-end gap-3 pt-1" @submit.prevent="bench.sayUnreadable(true, reason)">
      <label class="text-sm text-ink-soft"
        >Why
        <input v-model="reason" class="field" maxlength="120" placeholder="a stud in the way" />
      </label>
      <button type="submit" class="quiet min-h-11">Say so</button>
    </form>
  </details>
</template>
