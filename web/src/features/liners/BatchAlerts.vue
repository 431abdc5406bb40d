<script setup lang="ts">
import { onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { type BatchAlertView, readBatchAlerts } from '@/api/generated'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'

/** Batches of this job's liners that are off alike on other engines: told before this one is opened for it. */
const props = defineProps<{ jobId: string }>()
const { data: alerts, load } = useLoaded<BatchAlertView[]>(() =>
  ask(readBatchAlerts({ path: { job_id: props.jobId } })),
)
onBeforeUnmount(onChange((changed) => (changed === null || changed === props.jobId ? load() : undefined)))
</script>

<template>
  <p
    v-for="one in alerts ?? []"
    :key="one.words"
    role="alert"
    class="my-2 border-l-4 border-out py-1 pl-3 font-bold text-out"
  >
    {{ one.words }}
    <RouterLink class="link" :to="{ name: 'lands', query: { make: one.make } }">Its lands</RouterLink>
  </p>
</template>
