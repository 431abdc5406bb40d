<script setup lang="ts">
import { computed, ref } from 'vue'

import type { RunView } from '@/api/generated'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'

import type { RunNow } from './useRun'

/** Stop and measure, the stop reached, count and stop that disagree, the run finished or given up. */
const props = defineProps<{ now: RunNow; run: RunView }>()
const depth = ref('')
const why = ref('')
const isReached = ref(false)
const bare = computed(() => (unit.value === 'µm' ? ('mm' as const) : ('inch' as const)))
async function measured(confirmed = false): Promise<void> {
  if (
    await props.now.mark('measured on the way', {
      depth: `${depth.value} ${/[a-z"µ]/i.test(depth.value) ? '' : bare.value}`.trim(),
      confirmed,
    })
  )
    depth.value = ''
}
async function reached(): Promise<void> {
  if (await props.now.mark('stop reached')) isReached.value = true
}
const given = () => props.now.mark('given up', { words: why.value })
</script>

<template>
  <div class="grid gap-3">
    <p v-if="run.state === 'stop and measure'" class="border-l-4 border-act pl-3 text-lg">
      <b>Stop and measure.</b> Knock the burr off, read four, type the shallowest: the last
      {{ exactSmall(run.to_go_m, unit) }} {{ unit }} are set from that reading.
    </p>
    <form class="flex flex-wrap items-end gap-2" aria-label="Measured" @submit.prevent="measured()">
      <TextField
        v-model="depth"
        class="w-56"
        label="Depth from the deck, by the gauge"
        :bare="bare"
        path="depth"
      />
      <button type="submit" class="quiet min-h-11" :disabled="depth.trim() === '' || now.busy.value">
        Go on from it
      </button>
      <span v-if="run.measured_m !== null" class="pb-2 text-sm text-ink-soft"
        >last {{ lengthText(run.measured_m, SIZE_WITH[unit]) }} {{ SIZE_WITH[unit] }}</span
      >
    </form>
    <RefusalChoices :refusal="now.refusal.value" @answer="measured(true)" />
    <div v-if="!run.agree" class="border-l-4 border-unsure pl-3" role="alert">
      <p class="font-bold text-unsure"><PhraseText :phrase="run.says" /></p>
      <ul class="list-disc pl-5">
        <li v-for="(one, at) in run.may_be" :key="at"><PhraseText :phrase="one" /></li>
      </ul>
    </div>
    <details>
      <summary class="min-h-11 cursor-pointer py-2">Give the run up</summary>
      <form class="flex items-end gap-2" @submit.prevent="given">
        <TextField v-model="why" label="Why" path="words" />
        <button type="submit" class="quiet min-h-11" :disabled="why.trim() === ''">Give it up</button>
      </form>
    </details>
    <button
      v-if="run.of > run.count && !isReached"
      type="button"
      class="quiet min-h-11 justify-self-start"
      @click="reached"
    >
      The stop is reached already
    </button>
  </div>
</template>
