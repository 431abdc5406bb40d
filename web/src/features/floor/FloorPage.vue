<script setup lang="ts">
import { onBeforeUnmount, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { listJobs } from '@/api/generated'
import { onChange } from '@/shared/state/link'
import { tellingHole } from '@/shared/state/standing'
import { welcome } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import JobStrip from './JobStrip.vue'

/** All jobs as strips of rings. */
const { data: strips, refusal, load } = useLoaded(() => ask(listJobs()))
onBeforeUnmount(onChange(() => void load()))

const router = useRouter()
watch(strips, (now) => {
  const invented = now?.find((strip) => strip.job.invented)
  if (welcome.value !== 'new' || !invented) return
  welcome.value = 'shown'
  const telling = tellingHole(invented.holes)
  const params = { job: invented.job.job_id, hole: String(telling?.number ?? '') }
  void router.replace({ name: 'home', params })
})
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-4">
    <div class="mb-2 flex items-center justify-between gap-4">
      <h1 class="text-xl">Engines on the floor</h1>
      <div class="flex gap-3">
        <RouterLink :to="{ name: 'bring-in' }" class="quiet inline-flex items-center"
          >Bring a job in from a file</RouterLink
        >
        <RouterLink :to="{ name: 'take-in' }" class="act inline-flex items-center"
          >Take an engine in</RouterLink
        >
      </div>
    </div>
    <RefusalNote :refusal="refusal" />
    <p v-if="strips === null && !refusal" class="text-ink-soft">Loading the jobs …</p>
    <div v-else-if="strips?.length === 0" class="max-w-prose py-6 text-lg">
      <p>No engine is here yet. Before the first one comes in:</p>
      <ol class="list-decimal pt-2 pl-6">
        <li>
          say who works here and which gauges there are:
          <RouterLink to="/shop" class="link">gauges and people</RouterLink>
        </li>
        <li>
          write what the engine's book asks for on a
          <RouterLink to="/cards/new" class="link">spec card</RouterLink>
        </li>
        <li>then <RouterLink :to="{ name: 'take-in' }" class="link">take the engine in</RouterLink></li>
      </ol>
    </div>
    <JobStrip v-for="strip in strips ?? []" :key="strip.job.job_id" :strip="strip" />
  </main>
</template>
