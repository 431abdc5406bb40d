<script setup lang="ts">
import type { AfterView, FitView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

import { forceText, shareText } from './fit'
import SeatChecks from './SeatChecks.vue'

/** The bore read again: close-in predicted and found, and the press that this says was truly there. */
defineProps<{ fit: FitView; after: AfterView }>()
const job = useJob()
const emit = defineEmits<{ noted: [] }>()
const deep = (depth: number) =>
  lengthText(depth, SIZE_WITH[unit.value], { digits: unit.value === 'thou' ? 2 : 0 })
</script>

<template>
  <section aria-label="After the pull">
    <h2 class="text-lg">
      Since it is in
      <span :class="after.confirmed ? 'text-in' : 'text-unsure'">{{
        after.confirmed ? 'its bore was read: confirmed' : 'nobody read its bore: still open'
      }}</span>
    </h2>
    <div v-if="after.levels.length" class="relative overflow-x-auto">
      <table class="w-full border-collapse text-[0.95rem]">
        <thead class="text-sm text-ink-soft">
          <tr class="border-b border-ink">
            <th scope="col" class="py-1 text-left font-normal">level, {{ SIZE_WITH[unit] }}</th>
            <th scope="col" class="px-2 text-right font-normal">close-in predicted, {{ unit }}</th>
            <th scope="col" class="px-2 text-right font-normal">found</th>
            <th scope="col" class="px-2 text-right font-normal">press read</th>
            <th scope="col" class="px-2 text-right font-normal">press by the close-in</th>
            <th scope="col" class="px-2 text-left font-normal"><span class="sr-only">judged</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in after.levels" :key="one.name" class="border-b border-rule">
            <th scope="row" class="py-1 text-left font-normal">
              {{ one.name }} <span class="num text-sm text-ink-soft">{{ deep(one.depth_m) }}</span>
            </th>
            <td
              v-for="value in [one.predicted, one.found, one.press, one.true_press]"
              :key="value.value_m"
              class="num px-2 text-right"
            >
              {{ lengthText(value.value_m, unit, { signed: true }) }}
              <span class="text-sm text-ink-soft">±{{ uncertaintyText(value.expanded_m, unit) }}</span>
            </td>
            <td class="px-2" :class="one.agrees ? 'text-in' : 'font-bold text-unsure'">
              {{ one.agrees ? 'agrees' : 'does not agree' }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-for="(one, at) in after.says" :key="at" class="mt-1"><PhraseText :phrase="one" /></p>
    <p v-if="after.by_force" class="mt-1 text-sm text-ink-soft">
      By the greatest force, {{ forceText(after.by_force.greatest_n) }} kN, the press is
      {{ shareText(after.by_force.low) }} to {{ shareText(after.by_force.high) }} of the one read, for the
      whole range of friction.
    </p>
    <SeatChecks :hole="fit.hole" :after="after" @noted="emit('noted')" />
    <div class="mt-2 flex flex-wrap gap-3">
      <RouterLink
        v-if="!after.confirmed"
        class="act inline-flex items-center"
        :to="{ name: 'survey', params: { quantity: 'liner-bore', part: `hole-${fit.hole}` } }"
        >Read its bore</RouterLink
      >
      <RouterLink
        class="quiet inline-flex items-center"
        :to="{ name: 'pull', params: { hole: String(fit.hole) } }"
        >How it went in</RouterLink
      >
      <a
        class="quiet inline-flex items-center"
        :href="`/api/jobs/${job.jobId}/holes/${fit.hole}/label.html?unit=${unit === 'thou' ? 'thou' : 'um'}`"
        target="_blank"
        rel="noopener"
        >Its label, to print</a
      >
    </div>
  </section>
</template>
