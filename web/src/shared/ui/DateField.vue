<script setup lang="ts">
import { computed, inject, ref, useId } from 'vue'

import { NO_PROBLEMS, PROBLEMS } from './problems'

/** One labelled date; empty when it is not known. */
const props = defineProps<{ label: string; path: string }>()
const model = defineModel<string>({ required: true })
const id = useId()
const problems = inject(PROBLEMS, ref(NO_PROBLEMS))
const problem = computed(() => problems.value.get(props.path) ?? '')
</script>

<template>
  <div>
    <label :for="id" class="block text-sm text-ink-soft">{{ label }}</label>
    <input
      :id="id"
      v-model="model"
      type="date"
      class="field"
      :aria-invalid="problem !== ''"
      :aria-describedby="problem ? `${id}-note` : undefined"
    />
    <p v-if="problem" :id="`${id}-note`" class="text-sm text-out">{{ problem }}</p>
  </div>
</template>
