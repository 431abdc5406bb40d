<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask } from '@/api/ask'
import { type PracticeView, readPractice } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import ExerciseRow from './ExerciseRow.vue'
import NextExercise from './NextExercise.vue'
import OwnExercise from './OwnExercise.vue'
import PracticeHead from './PracticeHead.vue'
import { AREAS } from './areas'
import { useBegin } from './useBegin'

/** Every mistake once, where it costs nothing: exercises by area, what is sure of each, what comes next. */
const {
  data: practice,
  refusal,
  load,
} = useLoaded<PracticeView>(
  () => ask(readPractice({ query: personId.value ? { person_id: personId.value } : {} })),
  personId,
)
const { begin, form } = useBegin()
const seed = ref('')
const areas = computed(() =>
  AREAS.map((area) => ({
    ...area,
    exercises: (practice.value?.exercises ?? []).filter((one) => one.area === area.key),
  })).filter((area) => area.exercises.length),
)
const route = useRoute()
/** An area is gone to once its exercises are there. */
watch([practice, () => route.hash], async () => {
  await nextTick()
  if (route.hash) document.getElementById(route.hash.slice(1))?.scrollIntoView()
})
const seedOrNone = () => (/^\d{1,6}$/.test(seed.value.trim()) ? Number(seed.value.trim()) : null)
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-4 max-sm:px-3">
    <PracticeHead />
    <div class="grid gap-x-8 gap-y-3 lg:grid-cols-[minmax(0,8fr)_minmax(0,4fr)]">
      <div>
        <h1 class="text-2xl">Every mistake once, where it costs nothing</h1>
        <p class="mt-1 max-w-[60ch] text-ink-soft">
          Invented blocks with a hidden truth. Warnings keep quiet until you are done, then stand where they
          would have come. Nothing here touches a job, and no certificate comes of it.
        </p>
        <label class="mt-2 block max-w-[22rem] text-sm text-ink-soft"
          >Number of an exercise; the same number is the same for everybody
          <input v-model="seed" inputmode="numeric" class="field mt-0.5" placeholder="drawn anew" />
        </label>
      </div>
      <NextExercise v-if="practice" :next="practice.next" />
    </div>
    <RefusalNote :refusal="refusal ?? form.refusal.value" class="mt-2" />
    <section v-for="area in areas" :id="area.key.replace(' ', '-')" :key="area.key" class="mt-5">
      <h2 class="border-b-2 border-ink text-lg">{{ area.label }}</h2>
      <ExerciseRow
        v-for="one in area.exercises"
        :key="one.name"
        :exercise="one"
        :busy="form.busy.value"
        @begin="begin(one.name, seedOrNone())"
      />
    </section>
    <OwnExercise @written="load" />
  </main>
</template>
