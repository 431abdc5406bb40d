<script setup lang="ts">
import { ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { endReaderLink, listReaderLinks } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

/** Links with which customers read a proof: until when, and ended by hand before that. */
const { data: links, refusal: notLoaded } = useLoaded(() => ask(listReaderLinks()))
const refusal = ref<Refusal | null>(null)

async function end(reader_link_id: string): Promise<void> {
  try {
    links.value = await ask(endReaderLink({ path: { reader_link_id } }))
    refusal.value = null
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
</script>

<template>
  <section v-if="links?.length || refusal || notLoaded" aria-label="Links of customers">
    <h3 class="mt-4 text-lg">Links of customers</h3>
    <RefusalNote :refusal="refusal ?? notLoaded" />
    <ul>
      <li
        v-for="one in links"
        :key="one.reader_link_id"
        class="flex items-center justify-between gap-4 border-b border-rule py-1"
      >
        <span
          ><b>{{ one.name }}</b> reads job {{ one.job_number }}
          <span class="block text-sm text-ink-soft">until {{ one.expires_at.slice(0, 10) }}</span></span
        >
        <button type="button" class="quiet min-h-11 text-sm" @click="end(one.reader_link_id)">End it</button>
      </li>
    </ul>
  </section>
</template>
