<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type AttemptView, type JudgedView, type PracticeView, readPractice } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import PhraseText from '@/shared/ui/PhraseText.vue'
import TrailSteps from '@/shared/ui/TrailSteps.vue'

import NextExercise from './NextExercise.vue'
import { picturesOf } from './pictures'
import PictureView from './PictureView.vue'
import ScoreTable from './ScoreTable.vue'
import SkillRows from './SkillRows.vue'
import TrapsMet from './TrapsMet.vue'

/** What is seen afterwards: the truth over what was done, the score, the traps, what is sure, what comes next. */
const props = defineProps<{ view: AttemptView; judged: JudgedView }>()
const { data: practice } = useLoaded<PracticeView>(() =>
  ask(readPractice({ query: personId.value ? { person_id: personId.value } : {} })),
)
const mine = computed(() => practice.value?.exercises.find((one) => one.name === props.view.exercise))
</script>

<template>
  <div class="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,6fr)_minmax(0,6fr)]">
    <section
      aria-label="The truth"
      class="grid content-start items-start gap-4"
      :class="judged.pictures.length > 1 && 'xl:grid-cols-2'"
    >
      <PictureView
        v-for="(one, index) in picturesOf(judged)"
        :key="index"
        :class="{ 'mx-auto max-w-[17rem]': one.kind === 'dial', 'xl:col-span-2': one.kind === 'holes' }"
        :picture="one"
        :seconds="0"
      />
      <p v-for="(words, index) in judged.words" :key="`w${index}`" class="xl:col-span-2">
        <PhraseText :phrase="words" />
      </p>
      <details v-if="judged.steps.length" class="xl:col-span-2">
        <summary class="link cursor-pointer">The sum</summary>
        <TrailSteps :steps="judged.steps" />
      </details>
    </section>
    <div class="grid content-start items-start gap-4">
      <ScoreTable :judged="judged" />
      <TrapsMet :traps="judged.traps" />
      <div v-if="practice" class="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <section v-if="mine" aria-label="What is sure">
          <h2 class="font-bold">
            What is sure <span class="text-sm font-normal text-ink-soft">last eight</span>
          </h2>
          <SkillRows :skills="mine.skills" />
        </section>
        <NextExercise :next="practice.next" :again="view.exercise" />
      </div>
    </div>
  </div>
</template>
