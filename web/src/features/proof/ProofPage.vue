<script setup lang="ts">
import { computed, ref } from 'vue'

import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import { isOwner } from '@/shared/state/network'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import WaitingNote from '@/shared/ui/WaitingNote.vue'

import LinkForReader from './LinkForReader.vue'
import { usePrinting } from './usePrinting'

/** The proof sheet as it prints, and everything that can be taken away. */
const job = useJob()
const isGiving = ref(false)
const frame = ref<HTMLIFrameElement | null>(null)
const base = computed(() => `/api/jobs/${job.jobId}`)
const query = computed(() => `unit=${unit.value === 'thou' ? 'thou' : 'um'}`)
const open = computed(() => job.block.value?.holes.filter((hole) => hole.state !== 'in') ?? [])
/** A new event makes a new sheet. */
const sheet = computed(() => `${base.value}/proof.html?${query.value}#${job.block.value?.event ?? 0}`)

const printing = usePrinting(
  job.jobId,
  () => (unit.value === 'thou' ? 'thou' : 'um'),
  () => `proof-${job.block.value?.job.number ?? ''}.pdf`,
)

function print(): void {
  frame.value?.contentWindow?.print()
}
</script>

<template>
  <main class="flex flex-1 flex-col px-5 py-3">
    <div class="flex flex-wrap items-center gap-3 pb-3">
      <h1 class="text-xl">Proof sheet</h1>
      <p v-if="open.length" class="text-unsure">
        not proved yet: {{ open.map((hole) => `hole ${hole.number} ${hole.state}`).join(', ') }}
      </p>
      <p v-else class="text-in">every hole is in</p>
      <div class="ml-auto flex flex-wrap gap-3">
        <WaitingNote :waiting="printing.waiting" what="printing" give-up="Stop printing" />
        <button
          v-if="printing.waiting.seconds.value === null"
          type="button"
          class="act"
          @click="printing.print()"
        >
          PDF
        </button>
        <button type="button" class="quiet" @click="print">Print</button>
        <button
          v-if="isOwner"
          type="button"
          class="quiet"
          :aria-expanded="isGiving"
          @click="isGiving = !isGiving"
        >
          Link for the customer
        </button>
        <a class="quiet inline-flex items-center" :href="`${base}/readings.csv`" download>Readings as CSV</a>
        <a class="quiet inline-flex items-center" :href="`${base}/readings.xlsx`" download>as XLSX</a>
        <a class="quiet inline-flex items-center" :href="`${base}/job.json`" download>Whole job as JSON</a>
        <a
          v-if="job.block.value?.notes.some((note) => note.photo_here)"
          class="quiet inline-flex items-center"
          :href="`${base}/job.zip`"
          download
          >with photos as ZIP</a
        >
        <RouterLink class="quiet inline-flex items-center" :to="{ name: 'record' }"
          >Hold against the record</RouterLink
        >
        <RouterLink class="quiet inline-flex items-center" :to="{ name: 'labels' }">Labels</RouterLink>
        <RouterLink class="quiet inline-flex items-center" :to="{ name: 'import' }"
          >Bring readings in</RouterLink
        >
      </div>
    </div>
    <RefusalNote :refusal="printing.refusal.value" />
    <LinkForReader
      v-if="isGiving && job.block.value"
      :job-id="job.jobId"
      :customer="job.block.value.job.customer"
    />
    <iframe
      ref="frame"
      :key="sheet"
      :src="sheet"
      title="Proof sheet"
      class="min-h-[70vh] w-full flex-1 border border-rule bg-white"
    />
  </main>
</template>
