<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { OperationView, RouteView } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'
import { person } from '@/shared/state/people'
import PhraseText from '@/shared/ui/PhraseText.vue'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import { nextWords } from './words'
import type { RouteNow } from './useRoute'

/** One operation: how far it is and what shows it, cautions and risks of the step, clock, and its mark by hand. */
const props = defineProps<{ now: RouteNow; route: RouteView; one: OperationView }>()
const job = useJob()

const words = ref('')
const count = ref('')
const reason = ref('')
const hole = ref<number | null>(null)
const open = computed(() => props.one.holes.filter((mark) => mark.state !== 'in').map((mark) => mark.hole))
watch(
  () => props.one.operation,
  () => {
    words.value = count.value = reason.value = ''
    hole.value = open.value[0] ?? props.one.holes[0]?.hole ?? null
    props.now.forget()
  },
  { immediate: true },
)
const here = computed(() => props.one.holes.find((mark) => mark.hole === hole.value) ?? props.one.evidence)
const isNext = computed(() => props.route.next === props.one.operation)
const running = computed(() =>
  props.route.clocks.running.some(
    (run) => run.by === person.value?.name && run.operation === props.one.operation,
  ),
)
const heldUp = computed(() => props.one.holds.filter((hold) => hold.state === 'waits'))
/** Marked by hand, and still shown by what is recorded in a view of their own. */
const HAS_VIEW = new Set<string>(['clean', 'plug', 'caps', 'plate', 'align', 'deck', 'pistons'])
/** Where what shows the operation is recorded, for one that is not marked by hand. */
const goes = computed(() => {
  const params = { job: job.jobId }
  switch (props.one.operation) {
    case 'cut':
    case 'fit':
      return { name: 'cut', params: { ...params, hole: hole.value ?? open.value[0] ?? 1 } }
    case 'measure':
      return { name: 'strip-record', params }
    case 'clean':
    case 'plug':
      return { name: 'prepare', params }
    case 'seat':
      return { name: 'home', params: { ...params, hole: hole.value ?? '' } }
    case 'caps':
    case 'plate':
    case 'free':
      return { name: 'plate', params }
    case 'mains':
    case 'align':
      return { name: 'mains', params }
    case 'deck':
      return { name: 'deck', params }
    case 'pistons':
      return { name: 'pistons', params }
    case 'prove':
      return { name: 'proof', params }
    default:
      return { name: 'measure', params }
  }
})
async function mark(kind: 'done' | 'to be done again' | 'looked over'): Promise<void> {
  const done = await props.now.mark({
    operation: props.one.operation,
    hole: props.one.scope === 'hole' ? hole.value : null,
    kind,
    words: words.value,
    count: count.value.trim() === '' ? null : Number(count.value),
    hold_reason: reason.value,
  })
  if (done) words.value = count.value = reason.value = ''
}
defineExpose({ toggleClock: () => void props.now.clock(props.one.operation, !running.value) })
</script>

<template>
  <section class="border-2 border-ink bg-sheet" :aria-label="one.title">
    <div class="grid gap-2 bg-plate p-4 text-plate-text">
      <p class="text-sm text-plate-soft">{{ isNext ? 'Next on this job' : 'Operation' }}</p>
      <h2 class="text-xl leading-tight">
        {{ isNext ? nextWords(one) : one.title }}: {{ one.hours.toFixed(1) }} h
      </h2>
      <div v-if="one.holes.length > 1" class="flex flex-wrap gap-1" role="group" aria-label="Hole">
        <button
          v-for="at in one.holes"
          :key="at.hole"
          type="button"
          class="min-h-11 min-w-11 border border-plate-soft"
          :class="at.hole === hole ? 'bg-plate-text font-bold text-plate' : ''"
          :aria-pressed="at.hole === hole"
          @click="hole = at.hole"
        >
          {{ at.hole }}
        </button>
      </div>
      <p class="leading-snug text-plate-soft">
        {{ here.words }}<template v-if="here.at">, {{ whenText(here.at) }}</template
        ><template v-if="here.by"> by {{ here.by }}</template
        ><template v-if="one.waits_for.length"> · before it: {{ one.waits_for.join(', ') }}</template>
      </p>
      <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
        <button
          type="button"
          class="act"
          title="Space, or the pedal"
          @click="now.clock(one.operation, !running)"
        >
          {{ running ? 'Stop the clock' : 'Begin: start the clock' }}
        </button>
        <RouterLink
          v-if="!one.by_hand || HAS_VIEW.has(one.operation)"
          :to="goes"
          class="inline-flex min-h-11 items-center text-plate-act underline underline-offset-4"
        >
          Go to where it is recorded
        </RouterLink>
      </div>
    </div>
    <div class="grid gap-3 p-4">
      <p v-if="one.irreversible" class="border-l-4 border-unsure pl-3">
        This cannot be undone. <template v-if="one.holds.length">Look at the hold points first.</template>
      </p>
      <ul v-if="one.foreseen.length" class="grid gap-1" aria-label="What it would give">
        <li v-for="(phrase, at) in one.foreseen" :key="at"><PhraseText :phrase="phrase" /></li>
      </ul>
      <p v-for="hold in heldUp" :key="`${hold.hold}${hold.hole}`" class="text-sm text-unsure">
        {{ hold.words }}: {{ hold.missing }}
      </p>
      <form v-if="one.by_hand" class="grid gap-3" aria-label="Mark it" @submit.prevent="mark('done')">
        <TextField v-model="words" :label="one.asks ? `Write down: ${one.asks}` : 'Words'" path="words" />
        <TextField v-if="one.counts" v-model="count" :label="one.counts" path="count" whole />
        <div class="flex flex-wrap gap-3">
          <button type="submit" class="quiet min-h-11 font-bold">
            Mark {{ one.scope === 'hole' ? `hole ${hole}` : 'it' }} done
          </button>
          <button v-if="here.at" type="button" class="quiet min-h-11" @click="mark('to be done again')">
            To be done again
          </button>
          <button v-if="one.irreversible" type="button" class="quiet min-h-11" @click="mark('looked over')">
            I looked it over
          </button>
        </div>
      </form>
      <HoldReason v-model="reason" :refusal="now.refusal.value" @pass="mark('done')" />
      <RefusalNote v-if="now.refusal.value?.code !== 'hold point'" :refusal="now.refusal.value" />
      <p v-for="line in one.caution" :key="line" class="caution">{{ line }}</p>
      <template v-if="one.risks.length">
        <h3 class="text-sm">What goes wrong most often</h3>
        <ul class="-mt-2 list-disc pl-5 text-sm text-ink-soft">
          <li v-for="line in one.risks" :key="line">{{ line }}</li>
        </ul>
      </template>
    </div>
  </section>
</template>
