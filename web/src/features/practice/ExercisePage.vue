<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import AfterExercise from './AfterExercise.vue'
import ExerciseDesk from './ExerciseDesk.vue'
import PracticeHead from './PracticeHead.vue'
import { useAttempt } from './useAttempt'

/** One exercise: what is seen and what may be done; once it is over, the truth drawn over it, the sums, the traps. */
const route = useRoute()
const attempt = useAttempt(() => String(route.params['attempt']))
const { view, refusal } = attempt
const shows = ref<'yours' | 'truth'>('truth')
watch(
  () => route.params['attempt'],
  () => (shows.value = 'truth'),
)
const judged = computed(() => view.value?.judged ?? null)
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-3 max-sm:px-3">
    <PracticeHead :area="view?.area" />
    <div v-if="view" class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <RouterLink class="link" :to="{ name: 'practice' }">Practice</RouterLink>
      <h1 class="text-lg">{{ view.title }}</h1>
      <span class="num text-ink-soft">exercise {{ view.seed }}</span>
      <div v-if="judged" class="no-print ml-auto flex" role="group" aria-label="What is shown">
        <button
          v-for="[key, label] in [
            ['yours', 'your moves'],
            ['truth', 'replay and truth'],
          ] as const"
          :key="key"
          type="button"
          class="quiet first:rounded-r-none last:rounded-l-none"
          :class="shows === key ? '!bg-plate !text-plate-text' : ''"
          :aria-pressed="shows === key"
          @click="shows = key"
        >
          {{ label }}
        </button>
      </div>
    </div>
    <RefusalNote :refusal="refusal ?? attempt.form.refusal.value" class="mt-2" />
    <template v-if="view">
      <p v-if="judged" class="mt-2 text-2xl font-bold max-sm:text-xl" role="status">
        <PhraseText :phrase="judged.headline" />
      </p>
      <p v-else class="mt-1 max-w-[70rem]" :class="view.moves > 0 && 'max-sm:hidden'">{{ view.task }}</p>
      <AfterExercise v-if="judged && shows === 'truth'" :view="view" :judged="judged" />
      <ExerciseDesk v-else :view="view" :attempt="attempt" />
    </template>
  </main>
</template>
