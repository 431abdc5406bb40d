<script setup lang="ts">
import { ref } from 'vue'

/** A place that cannot be read is said with its reason; it is then undecided, never silently short. */
defineProps<{ said: string; what: string; example: string }>()
const emit = defineEmits<{ say: [unreadable: boolean, reason: string] }>()
const reason = ref('')
</script>

<template>
  <p v-if="said" class="mt-3 text-unsure">
    Cannot be read: {{ said }}
    <button type="button" class="link ml-2" @click="emit('say', false, '')">It can be read after all</button>
  </p>
  <details v-else class="mt-3">
    <summary class="min-h-8 cursor-pointer">This {{ what }} cannot be read</summary>
    <form class="flex flex-wrap items-end gap-3 pt-1" @submit.prevent="emit('say', true, reason)">
      <label class="text-sm text-ink-soft"
        >Why
        <input v-model="reason" class="field" maxlength="120" :placeholder="example" />
      </label>
      <button type="submit" class="quiet min-h-11">Say so</button>
    </form>
  </details>
</template>
