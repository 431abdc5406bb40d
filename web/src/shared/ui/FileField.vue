<script setup lang="ts">
import { computed, inject, ref, useId } from 'vue'

import { NO_PROBLEMS, PROBLEMS } from './problems'

/** A file to bring in; its bound is said, and looked at before anything is sent. */
const props = defineProps<{ label: string; accept: string; hint: string; largestMb: number }>()
const emit = defineEmits<{ chosen: [file: File] }>()
const id = useId()
const tooLarge = ref('')
const problems = inject(PROBLEMS, ref(NO_PROBLEMS))
const problem = computed(() => tooLarge.value || (problems.value.get('file') ?? ''))

function choose(event: Event): void {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file) return
  tooLarge.value = ''
  if (file.size > props.largestMb * 1e6) {
    tooLarge.value = `${file.name} has ${(file.size / 1e6).toFixed(1)} MB: ${props.largestMb} MB at most.`
  } else emit('chosen', file)
}

/** The same file, corrected, may be chosen again. */
function forget(event: Event): void {
  ;(event.target as HTMLInputElement).value = ''
}
</script>

<template>
  <div>
    <label :for="id" class="block text-sm text-ink-soft">{{ label }}</label>
    <input
      :id="id"
      type="file"
      :accept="accept"
      class="field file:mr-3 file:rounded file:border file:border-rule file:bg-iron file:px-3 file:py-1 file:text-ink"
      :aria-invalid="problem !== ''"
      :aria-describedby="`${id}-note`"
      @click="forget"
      @change="choose"
    />
    <p :id="`${id}-note`" class="text-sm" :class="problem ? 'text-out' : 'text-ink-soft'">
      {{ problem || `${hint}; ${largestMb} MB at most` }}
    </p>
  </div>
</template>
