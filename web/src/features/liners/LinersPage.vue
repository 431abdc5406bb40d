<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'

import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'

import AsFound from '@/shared/ui/AsFound.vue'
import SetupDialog from '@/shared/ui/SetupDialog.vue'

import AddLinerForm from './AddLinerForm.vue'
import LinerRow from './LinerRow.vue'
import BatchAlerts from './BatchAlerts.vue'
import ShimTable from './ShimTable.vue'

/** The liners of the job: maker, batch, where each one is, and its flange at every named land. */
const job = useJob()
const route = useRoute()
const liners = computed(() => job.block.value?.liners ?? [])
const lands = computed(() => job.block.value?.card.lands ?? [])
const choosing = ref(false)
const setup = computed(() => job.block.value?.setups.find((one) => one.quantity === 'flange thickness'))
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <div class="flex flex-wrap items-baseline justify-between gap-4">
      <h1 class="text-xl">Liners and their flanges</h1>
      <RouterLink class="link" :to="{ name: 'labels', params: { job: job.jobId }, query: { of: 'liner' } }"
        >Labels</RouterLink
      >
      <p class="text-sm text-ink-soft">
        {{ SIZE_WITH[unit] }} · read with {{ setup?.gauge.name ?? 'no gauge yet' }}
        <button type="button" class="link ml-2" @click="choosing = true">
          {{ setup ? 'Read them with another gauge' : 'Choose the gauge' }}
        </button>
      </p>
    </div>
    <SetupDialog
      v-if="job.block.value"
      :open="choosing"
      :block="job.block.value"
      :job-id="job.jobId"
      quantity="flange thickness"
      @close="choosing = false"
      @changed="job.reload()"
    />
    <p v-if="liners.length === 0" class="py-4 text-lg">
      No liner is in this job yet. Write down those it came with, or paint a mark on each new one and add it
      here.
    </p>
    <BatchAlerts :job-id="job.jobId" />
    <AsFound />
    <div v-if="liners.length > 0" class="relative overflow-x-auto">
      <table class="w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-2 font-normal">Mark</th>
            <th scope="col" class="font-normal">make</th>
            <th scope="col" class="font-normal">batch</th>
            <th scope="col" class="font-normal">hole</th>
            <th
              v-for="[name, raised, note] in lands"
              :key="name"
              scope="col"
              class="pl-4 font-normal"
              :title="note"
            >
              flange at the {{ name }}
              <span v-if="raised > 0" class="num">(+{{ lengthText(raised, unit) }})</span>
            </th>
          </tr>
        </thead>
        <tbody>
          <LinerRow
            v-for="one in liners"
            :key="one.liner.liner_id"
            :liner="one"
            :lands="lands.map(([name]) => name)"
            :wanted="route.query['liner'] === one.liner.mark"
          />
        </tbody>
      </table>
    </div>
    <p class="caution mt-4">
      Thickness and protrusion are compared on one land only. A thickness over the lip, written down as the
      flat land, makes parts and reading disagree by the height of the lip.
    </p>
    <div class="mt-6 grid gap-10 lg:grid-cols-[1fr_26rem]">
      <AddLinerForm />
      <ShimTable v-if="job.block.value?.shims.length" :shims="job.block.value.shims" :job-id="job.jobId" />
    </div>
  </main>
</template>
