<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type GaugeVersion, listGaugeLinks, type TalkingGaugeView } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import GaugeLinkForm from './GaugeLinkForm.vue'

/** Gauges with a line: whether it is live, what they said last, and setting a line up. */
const props = defineProps<{ gauges: GaugeVersion[] }>()
const REFRESH_MS = 1000
const { data: links, refusal, load } = useLoaded(() => ask(listGaugeLinks()))
useIntervalFn(() => void load(), REFRESH_MS)
const chosen = ref('')
const chosenLink = computed(() => links.value?.find((link) => link.gauge_id === chosen.value) ?? null)
const choices = computed(() => props.gauges.map((gauge) => ({ value: gauge.gauge_id, label: gauge.name })))

const tone = (link: TalkingGaugeView) => (link.state === 'live' ? 'text-in' : 'text-unsure')
async function saved(): Promise<void> {
  chosen.value = ''
  await load()
}
</script>

<template>
  <section aria-label="Gauges that talk">
    <h2 class="text-xl">Gauges that talk</h2>
    <RefusalNote :refusal="refusal" />
    <ul>
      <li
        v-for="link in links ?? []"
        :key="link.gauge_id"
        class="grid items-center gap-x-4 border-b max-lg:grid-cols-[1fr_auto] lg:grid-cols-[9rem_1fr_auto] border-rule py-2"
      >
        <b>{{ link.name }}</b>
        <span>
          <b :class="tone(link)">{{ link.state }}</b>
          <span v-if="link.text" class="num ml-3 text-lg">{{ link.text }}</span>
          <span class="block text-sm text-ink-soft">
            {{ link.message || `${link.url} · ${link.line_pattern}`
            }}{{ link.simulated ? ' · simulated' : '' }}
          </span>
        </span>
        <button type="button" class="quiet text-sm" @click="chosen = link.gauge_id">Set up</button>
      </li>
    </ul>
    <p v-if="links?.length === 0" class="py-2">
      No gauge has a line yet: choose one below and say where it sends.
    </p>
    <GaugeLinkForm
      :key="chosen"
      v-model:gauge="chosen"
      class="mt-3"
      :choices="choices"
      :link="chosenLink"
      @saved="saved"
    />
  </section>
</template>
