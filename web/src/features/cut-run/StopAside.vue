<script setup lang="ts">
import type { RunView } from '@/api/generated'

/** Where this pass stops, when the chips come out, how long it still takes. */
defineProps<{ run: RunView; over: boolean }>()
const emit = defineEmits<{ vacuum: [] }>()
const minutes = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`
</script>

<template>
  <div class="grid content-start gap-2">
    <div v-if="!over">
      <p class="text-lg">Stop this pass at</p>
      <p class="text-5xl font-bold text-act lg:text-6xl">{{ run.next_stop_hour }} h</p>
      <p v-if="run.passes.length" class="text-sm text-ink-soft">
        not where the last ones stopped:
        {{
          run.passes
            .slice(-3)
            .reverse()
            .map((one) => `${one.stop_hour} h`)
            .join(', ')
        }}
      </p>
    </div>
    <div class="border-t border-rule pt-2">
      <button
        v-if="run.vacuum_due"
        type="button"
        class="quiet min-h-11 border-act font-bold text-act"
        @click="emit('vacuum')"
      >
        Vacuum now, then tap here
      </button>
      <template v-else>
        <p class="text-xl font-bold">Vacuum after pass {{ run.next_vacuum }}</p>
        <p class="text-sm text-ink-soft">
          {{ run.next_vacuum - run.count }} from now, every {{ run.vacuum_every }}
        </p>
      </template>
    </div>
    <p class="border-t border-rule pt-2">
      <b class="text-2xl">{{ minutes(run.left_s) }}</b>
      <span class="text-ink-soft"> ±{{ minutes(run.left_within_s) }} to the end</span>
      <span class="block text-sm text-ink-soft">{{
        run.of_passes
          ? `from ${run.of_passes} passes of this run`
          : run.learned_from
            ? `learned from ${run.learned_from} runs`
            : 'as usual, until three are turned'
      }}</span>
    </p>
  </div>
</template>
