<script setup lang="ts">
import type { ExerciseView } from '@/api/generated'

import SkillRows from './SkillRows.vue'

/** One exercise of the list: what it asks, what is sure of it, its key. */
defineProps<{ exercise: ExerciseView; busy: boolean }>()
const emit = defineEmits<{ begin: [] }>()
</script>

<template>
  <article
    class="grid gap-x-6 gap-y-1 border-b border-rule py-3 lg:grid-cols-[minmax(0,7fr)_minmax(0,4fr)_auto]"
    :aria-label="exercise.title"
  >
    <div>
      <h3 class="text-lg">
        {{ exercise.title }}
        <span class="text-sm font-normal text-ink-soft">about {{ exercise.minutes }} min</span>
      </h3>
      <p class="max-w-[65ch]">{{ exercise.task }}</p>
      <p v-if="exercise.best !== null" class="text-sm text-ink-soft">
        {{ exercise.tried }} times tried, best
        <span class="num">{{ exercise.best }} of {{ exercise.best_of }}</span>
      </p>
    </div>
    <SkillRows v-if="exercise.tried" :skills="exercise.skills" />
    <p v-else class="text-sm text-ink-soft">
      not tried: {{ exercise.skills.map((skill) => skill.name).join(', ') }}
    </p>
    <button
      type="button"
      class="quiet min-h-11 self-start px-5 font-bold"
      :disabled="busy"
      @click="emit('begin')"
    >
      Begin<span class="sr-only"> {{ exercise.title }}</span>
    </button>
  </article>
</template>
