<script setup lang="ts">
import { computed, ref } from 'vue'

import type { DropPageView, DropView, HeatMarkKind } from '@/api/generated'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import { STEP_WORDS } from './dropWords'
import type { DropRun } from './useDrop'

/** The one thing to press now: what is looked at first, out of the cold, each step, how it felt; and stuck, what then. */
const props = defineProps<{ run: DropRun; page: DropPageView; drop: DropView }>()
const emit = defineEmits<{ tap: [] }>()
const words = ref('')
const nextCheck = computed(() => props.drop.checks.find((one) => !one.done_by) ?? null)
const FEELS: readonly { kind: HeatMarkKind; label: string; d: string }[] = [
  { kind: 'dropped', label: 'dropped', d: 'M26 2v12m-5 -5 5 5 5-5' },
  { kind: 'pushed', label: 'pushed', d: 'M8 4h36M26 4v10m-5 -5 5 5 5-5' },
  { kind: 'driven', label: 'driven', d: 'M12 2h20v6H12zM32 5h12M22 8v8' },
  { kind: 'stuck', label: 'stuck', d: 'M14 2l24 14M38 2 14 16' },
]
const stuckNow = ref(false)
async function feel(kind: HeatMarkKind): Promise<void> {
  if (kind === 'stuck' && !words.value.trim()) {
    stuckNow.value = true
    return
  }
  if (await props.run.note(kind, { words: words.value })) words.value = ''
}
async function say(kind: HeatMarkKind): Promise<void> {
  if (await props.run.note(kind, { words: words.value })) words.value = ''
}
const isStuck = computed(() => props.drop.state === 'stuck' || stuckNow.value)
</script>

<template>
  <section class="grid content-start gap-3" aria-label="What is done">
    <template v-if="drop.state === 'to be looked at first'">
      <ol class="grid">
        <li
          v-for="one in drop.checks"
          :key="one.kind"
          class="flex items-center justify-between gap-3 border-b border-rule py-1"
          :class="one.done_by ? 'text-ink-soft' : one.kind === nextCheck?.kind ? 'font-bold' : ''"
        >
          <span>{{ one.kind }}</span><span v-if="one.done_by" class="text-in">{{ one.done_by }}</span>
        </li>
      </ol>
      <button type="button" class="act min-h-20 text-xl" :disabled="run.busy.value" @click="emit('tap')">
        {{ nextCheck?.kind }}
      </button>
    </template>
    <button
      v-else-if="drop.state === 'ready to come out of the cold'"
      type="button"
      class="act min-h-28 text-2xl"
      :disabled="run.busy.value"
      @click="emit('tap')"
    >
      {{ drop.liner }} out of the cold
      <span class="block text-sm font-normal">starts the clock; pedal or space</span>
    </button>
    <button
      v-else-if="drop.next_step"
      type="button"
      class="act min-h-28 text-2xl"
      :disabled="run.busy.value"
      @click="emit('tap')"
    >
      {{
        drop.next_step === 'enters'
          ? 'It enters now'
          : `Done: ${STEP_WORDS[drop.next_step] ?? drop.next_step}`
      }}
      <span class="block text-sm font-normal max-sm:hidden">pedal or space, when it is done</span>
    </button>
    <template v-else-if="drop.state === 'in the hole'">
      <h2 class="text-lg">How did it go home?</h2>
      <div class="grid grid-cols-2 gap-2">
        <button
          v-for="one in FEELS"
          :key="one.kind"
          type="button"
          class="grid min-h-20 place-items-center rounded border bg-sheet py-2"
          :class="one.kind === 'stuck' ? 'border-out text-out' : 'border-ink'"
          :disabled="run.busy.value"
          @click="feel(one.kind)"
        >
          <svg v-legible viewBox="0 0 52 18" class="h-6 w-16">
            <path :d="one.d" class="fill-none stroke-current" stroke-width="2.4" />
          </svg>
          <b class="text-xl">{{ one.label }}</b>
        </button>
      </div>
    </template>
    <div v-if="isStuck" class="grid gap-2 border-l-4 border-out pl-3" role="alert">
      <p v-for="one in page.stuck" :key="one">{{ one }}</p>
      <label class="grid gap-1"
        >What happened, how far is it in<input v-model="words" class="field" name="words"
      /></label>
      <div class="flex flex-wrap gap-2">
        <button v-if="stuckNow && drop.state !== 'stuck'" type="button" class="act" @click="feel('stuck')">
          Note that it is stuck
        </button>
        <template v-else>
          <button type="button" class="quiet min-h-11" @click="say('goes on')">It goes on</button>
          <button type="button" class="quiet min-h-11" @click="say('taken back out')">Taken back out</button>
        </template>
      </div>
    </div>
    <details v-else-if="drop.goes_on" class="text-sm">
      <summary class="min-h-8 cursor-pointer text-ink-soft">Back to the cold with it</summary>
      <form class="mt-1 flex flex-wrap items-end gap-2" @submit.prevent="say('taken back out')">
        <label class="grid grow">why<input v-model="words" class="field" name="words" /></label
        ><button type="submit" class="quiet min-h-11">Take it back</button>
      </form>
    </details>
    <section
      v-if="drop.felt"
      class="border-l-4 pl-3"
      :class="drop.felt.is_harder ? 'border-out' : 'border-in'"
      aria-label="What it felt like"
    >
      <p class="font-bold" :class="drop.felt.is_harder && 'text-out'">
        <PhraseText :phrase="drop.felt.says" />
      </p>
      <ul v-if="drop.felt.looks.length" class="mt-1 grid gap-0.5 text-sm">
        <li v-for="one in drop.felt.looks" :key="one">{{ one }}</li>
      </ul>
    </section>
    <RefusalNote v-if="run.refusal.value" :refusal="run.refusal.value" />
    <p v-if="run.said.value" class="font-bold" role="status" aria-label="Said">{{ run.said.value }}</p>
    <p v-if="run.waiting.value" class="text-unsure">
      {{ run.waiting.value }} wait for the link, each with its time.
    </p>
  </section>
</template>
