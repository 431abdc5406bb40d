<script setup lang="ts">
import { computed, inject, ref, useId } from 'vue'

import { NO_PROBLEMS, PROBLEMS } from './problems'

/** One labelled choice out of a few. */
const props = defineProps<{
  label: string
  choices: readonly { value: string; label: string }[]
  path?: string
  hideLabel?: boolean
}>()
const model = defineModel<string>({ required: true })
const id = useId()
const problems = inject(PROBLEMS, ref(NO_PROBLEMS))
const problem = computed(() => (props.path ? (problems.value.get(props.path) ?? '') : ''))
</script>

<template>
  <div>
    <label :for="id" class="block text-sm text-ink-soft" :class="hideLabel && 'sr-only'">{{ label }}</label>
    <select :id="id" v-model="model" class="field" :aria-invalid="problem !== ''">
      <option v-for="choice in choices" :key="choice.value" :value="choice.value">{{ choice.label }}</option>
    </select>
    <p v-if="problem" class="text-sm text-out">{{ problem }}</p>
  </div>
</template>
