<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'

import { ask, asRefusal } from '@/api/ask'
import { type ClockNowView, type Operation, readRunning, runClock } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { person } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'

/** The working clock where the work is done: started and stopped with one touch, at the operation of this bench. */
const props = defineProps<{ operation: Operation }>()
const job = useJob()
const running = ref<ClockNowView[]>([])
const said = ref('')
const now = ref(Date.now())
const own = computed(() => running.value.find((one) => one.by === person.value?.name) ?? null)
const here = computed(() => own.value?.operation === props.operation)
const minutes = computed(() =>
  own.value ? Math.max(0, Math.floor((now.value - Date.parse(own.value.since)) / 60_000)) : 0,
)
const lasted = computed(
  () => `${Math.floor(minutes.value / 60)}:${String(minutes.value % 60).padStart(2, '0')}`,
)

async function load(): Promise<void> {
  try {
    running.value = await ask(readRunning({ path: { job_id: job.jobId } }))
  } catch {
    // The clock says nothing while the link is down; the bench says that it is.
    running.value = []
  }
}
watch(() => job.jobId, load, { immediate: true })
onBeforeUnmount(onChange((changed) => void (changed === job.jobId && load())))
const ticking = setInterval(() => (now.value = Date.now()), 15_000)
onBeforeUnmount(() => clearInterval(ticking))

async function turn(): Promise<void> {
  said.value = ''
  try {
    const body = { operation: props.operation, running: !here.value, person_id: personId.value }
    await ask(runClock({ path: { job_id: job.jobId }, body }))
    await load()
  } catch (error) {
    said.value = asRefusal(error).problems[0]?.message ?? asRefusal(error).message
  }
}
</script>

<template>
  <span class="inline-flex items-center gap-2">
    <button
      type="button"
      class="min-h-11 border border-ink px-3 text-sm whitespace-nowrap"
      :class="here ? 'bg-ink font-bold text-paper' : ''"
      :aria-pressed="here"
      @click="turn"
    >
      {{ here ? `clock ${lasted}, stop` : 'start the clock' }}
    </button>
    <span v-if="said" role="status" class="text-sm text-out">{{ said }}</span>
  </span>
</template>
