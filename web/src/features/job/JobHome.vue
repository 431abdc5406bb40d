<script setup lang="ts">
import { watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useJob } from '@/shared/state/job'

/** The home of a job: its block, looked at the way its construction is looked at first. */
const job = useJob()
const route = useRoute()
const router = useRouter()
watch(
  job.block,
  (block) => {
    const lens = block?.lenses[0]?.name
    if (!lens) return
    const params = { job: job.jobId, lens, hole: String(route.params['hole'] ?? '') }
    void router.replace({ name: 'block', params, query: route.query })
  },
  { immediate: true },
)
</script>

<template>
  <main class="flex-1 px-5 py-4" aria-busy="true"></main>
</template>
