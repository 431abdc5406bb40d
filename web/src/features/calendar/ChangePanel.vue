<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CalendarView } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import PromiseDialog from './PromiseDialog.vue'
import type { CalendarNow } from './useCalendar'
import { dayWords, momentWords, percent } from './words'

/** What a change that is tried would move, before it is accepted; else the promise that is worst off. */
const props = defineProps<{ now: CalendarNow; view: CalendarView }>()
const tried = computed(() => props.now.tried.value)
const moves = computed(() => tried.value?.moved.filter((one) => one.days !== 0) ?? [])
const worst = computed(
  () =>
    [...props.view.jobs]
      .filter((job) => job.holds === false || (job.kept !== null && job.kept < 0.8))
      .sort((a, b) => (a.kept ?? 1) - (b.kept ?? 1))[0] ?? null,
)
const dates = (before: string | null, after: string | null) =>
  before && after && before.slice(0, 10) !== after.slice(0, 10)
    ? `${dayWords(before)} → ${dayWords(after)}`
    : dayWords(after)
const promising = ref('')
const promised = computed(() => props.view.jobs.find((job) => job.job_id === promising.value) ?? null)
const message = ref('')
/** Whose promise is looked at once a change is accepted: the one it was made on. */
async function accept(): Promise<void> {
  const job = props.now.change.value?.job ?? ''
  message.value = tried.value?.message ?? ''
  if (!(await props.now.accept())) return
  const own = props.now.view.value?.jobs.find((one) => one.job_id === job)
  if (own && (own.holds === false || own.promised === null)) promising.value = job
}
</script>

<template>
  <section aria-labelledby="moves" class="grid content-start gap-3">
    <div v-if="tried">
      <h2 id="moves" class="text-lg">What it moves</h2>
      <ul class="text-sm">
        <li v-for="one in moves" :key="one.name" class="flex justify-between gap-3 border-b border-rule py-1">
          <span>{{ one.name }} ready</span>
          <b class="num" :class="one.days > 0 ? 'text-out' : 'text-in'">
            {{ dates(one.ready_before, one.ready_after) }}
          </b>
        </li>
        <li v-if="!moves.length" class="py-1">No job is ready on another day.</li>
        <li
          v-for="one in tried.clashes.slice(0, 2)"
          :key="`${one.waits}${one.at}`"
          class="border-b border-rule py-1 text-unsure"
        >
          {{ one.machine }}: {{ one.first }} first, {{ one.waits }} from {{ momentWords(one.at) }}
        </li>
      </ul>
    </div>
    <div class="bg-plate px-5 py-4 text-plate-text" :aria-labelledby="tried ? undefined : 'moves'">
      <template v-if="tried">
        <p class="text-plate-soft">Tried, not accepted yet</p>
        <p class="text-lg font-bold">{{ tried.message }}</p>
        <div class="mt-3 flex flex-wrap items-center gap-4">
          <button type="button" class="act" :disabled="now.busy.value" @click="accept">Accept it</button>
          <button type="button" class="text-plate-act underline" @click="now.drop()">
            Leave it as it was
          </button>
        </div>
      </template>
      <template v-else-if="worst">
        <p class="text-plate-soft">{{ worst.name }}</p>
        <p id="moves" class="text-xl font-bold">
          <template v-if="worst.holds === false">
            Ready {{ dayWords(worst.ready) }}, promised {{ dayWords(worst.promised) }}: tell the owner
          </template>
          <template v-else>
            Promised {{ dayWords(worst.promised) }}, kept {{ percent(worst.kept ?? 0) }}: nine in ten is
            {{ dayWords(worst.offered) }}
          </template>
        </p>
        <div class="mt-3 flex flex-wrap items-center gap-4">
          <button type="button" class="act" @click="promising = worst.job_id">
            Promise {{ dayWords(worst.offered) }}
          </button>
          <a class="text-plate-act underline" href="#try-a-change">Try a change first</a>
        </div>
      </template>
      <template v-else>
        <p id="moves" class="text-xl font-bold">Every promise holds in eight of ten or better.</p>
        <p class="mt-1 text-plate-soft">
          A late part, a pin or another person can be tried before it is accepted.
        </p>
      </template>
    </div>
    <RefusalNote :refusal="now.refusal.value" />
    <PromiseDialog
      v-if="promised"
      :job="promised"
      :now="now"
      :message="message"
      @close="((promising = ''), (message = ''))"
    />
  </section>
</template>
