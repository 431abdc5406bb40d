<script setup lang="ts">
import { computed, onBeforeUnmount, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { listJobs } from '@/api/generated'
import { onChange } from '@/shared/state/link'
import { tellingHole } from '@/shared/state/standing'
import { welcome } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import FloorFilterBar from './FloorFilterBar.vue'
import JobStrip from './JobStrip.vue'
import { found, useFloorFilter } from './useFloor'

/** All jobs as strips of rings. */
const filter = useFloorFilter()
const { words, show, away } = filter
const { data: strips, refusal, load } = useLoaded(() => ask(listJobs({ query: { away: away.value } })), away)
const shown = computed(() => found(strips.value ?? [], words.value, show.value))
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
    <div class="mb-2 flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
      <h1 class="text-xl">Engines on the floor</h1>
      <div class="flex flex-wrap gap-3">
        <RouterLink :to="{ name: 'bring-in' }" class="quiet inline-flex items-center"
          >Bring a job in from a file</RouterLink
        >
        <RouterLink :to="{ name: 'take-in' }" class="act inline-flex items-center"
          >Take an engine in</RouterLink
        >
      </div>
    </div>
    <RefusalNote :refusal="refusal" />
    <FloorFilterBar v-if="strips?.length || away" :strips="strips ?? []" :filter="filter" />
    <p v-if="strips === null && !refusal" class="text-ink-soft">Loading the jobs …</p>
    <p v-else-if="away && strips?.length === 0" class="py-4 text-lg">No job was put away.</p>
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
    <p v-else-if="strips && shown.length === 0" class="py-4 text-lg">
      No job here answers to that.
      <button type="button" class="link" @click="((words = ''), filter.look({ show: 'all' }))">
        Show all
      </button>
    </p>
    <JobStrip v-for="strip in shown" :key="strip.job.job_id" :strip="strip" @filed="load()" />
  </main>
</template>
