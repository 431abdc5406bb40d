<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { openReaderLink, readOwnLink, type ReadingView } from '@/api/generated'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import UnitSwitch from '@/shared/ui/UnitSwitch.vue'

/** What a customer's link shows: the proof of one job as it stands now, and nothing else. */
const route = useRoute()
const router = useRouter()
const reading = ref<ReadingView | null>(null)
const refusal = ref<Refusal | null>(null)
const frame = ref<HTMLIFrameElement | null>(null)

onMounted(async () => {
  const token = route.hash.slice(1)
  try {
    if (token) reading.value = await ask(openReaderLink({ body: { token } }))
    else reading.value = await ask(readOwnLink())
    // The browser keeps the key now; it stands in the address no longer.
    if (token) await router.replace({ name: 'read' })
  } catch (error) {
    refusal.value = asRefusal(error)
  }
})
const day = (iso: string) => iso.slice(0, 10)
</script>

<template>
  <main class="flex min-h-screen flex-1 flex-col gap-3 px-5 py-3">
    <div v-if="reading" class="flex flex-wrap items-center gap-x-5 gap-y-2">
      <h1 class="text-xl">Proof of job {{ reading.job_number }}, {{ reading.job_name }}</h1>
      <p class="text-ink-soft">for {{ reading.name }}, to be read until {{ day(reading.expires_at) }}</p>
      <div class="ml-auto flex items-center gap-3">
        <UnitSwitch />
        <button type="button" class="quiet" @click="frame?.contentWindow?.print()">Print</button>
      </div>
    </div>
    <iframe
      v-if="reading"
      ref="frame"
      :key="unit"
      :src="`/api/jobs/${reading.job_id}/proof.html?unit=${unit === 'thou' ? 'thou' : 'um'}`"
      title="Proof sheet"
      class="min-h-[70vh] w-full flex-1 border border-rule bg-white"
    />
    <template v-else-if="refusal">
      <h1 class="text-xl">Nothing to be read here</h1>
      <p v-if="refusal.code === 'not paired'" class="max-w-prose">
        The link has ended, or it was opened in another browser: ask the shop for another. A screen of the
        shop is
        <RouterLink class="link" :to="{ name: 'pair' }">let in by a code</RouterLink>.
      </p>
      <RefusalNote v-else :refusal="refusal" />
    </template>
    <p v-else aria-busy="true" class="text-ink-soft">The proof is being loaded.</p>
  </main>
</template>
