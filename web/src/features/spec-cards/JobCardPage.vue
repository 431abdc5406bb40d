<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  type CardVersion,
  type CardWithVersions,
  type ChangedState,
  chooseCard,
  readCard,
} from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import StateChanges from '@/shared/ui/StateChanges.vue'

import AnotherCard from './AnotherCard.vue'
import LimitList from './LimitList.vue'

/** The card version that judges this job, with every limit's source; another one can be tried first. */
const job = useJob()
const tried = ref<CardVersion | null>(null)
const changes = shallowRef<ChangedState[]>([])
const refusal = ref<Refusal | null>(null)

const present = computed(() => job.block.value?.card.version)
const cardId = computed(() => present.value?.spec_card_id ?? '')
const {
  data: versions,
  refusal: notLoaded,
  load,
} = useLoaded<CardWithVersions>(() => ask(readCard({ path: { spec_card_id: cardId.value } })), cardId)
const card = computed(() => {
  const at = versions.value?.versions.findIndex(
    (one) => one.spec_card_version_id === present.value?.spec_card_version_id,
  )
  return at === undefined || at < 0 ? null : (versions.value?.cards[at] ?? null)
})

async function choose(version: CardVersion, onlyPreview: boolean): Promise<void> {
  try {
    changes.value = await ask(
      chooseCard({
        path: { job_id: job.jobId },
        body: {
          spec_card_version_id: version.spec_card_version_id,
          person_id: personId.value,
          only_preview: onlyPreview,
        },
      }),
    )
    tried.value = onlyPreview ? version : null
    refusal.value = null
    if (!onlyPreview) await job.reload()
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
</script>

<template>
  <main class="mx-auto grid w-full max-w-6xl gap-8 px-5 py-4 lg:grid-cols-[1fr_22rem]">
    <section aria-label="Limits" class="min-w-0">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h1 class="text-xl">{{ card?.name }}</h1>
        <p class="text-sm text-ink-soft">this job is judged by version {{ present?.version }}</p>
        <RouterLink
          v-if="present"
          class="link ml-auto text-sm"
          :to="{ name: 'card', params: { card: present.spec_card_id } }"
          >Edit the card</RouterLink
        >
      </div>
      <RefusalNote :refusal="refusal ?? notLoaded" />
      <LimitList v-if="card" :card="card" />
    </section>
    <section aria-label="Versions">
      <h2 class="text-lg">Versions</h2>
      <ul>
        <li
          v-for="one in versions?.versions ?? []"
          :key="one.spec_card_version_id"
          class="border-b border-rule py-2"
        >
          <b class="mr-2">version {{ one.version }}</b>
          <span class="text-sm text-ink-soft"> {{ one.saved_by }} {{ whenText(one.saved_at) }}</span>
          <span
            v-if="one.spec_card_version_id === present?.spec_card_version_id"
            class="ml-2 text-sm font-bold text-in"
            >judges this job</span
          >
          <button v-else type="button" class="quiet ml-2 text-sm" @click="choose(one, true)">
            What would change?
          </button>
          <div v-if="tried?.spec_card_version_id === one.spec_card_version_id" class="mt-2 text-sm">
            <StateChanges :changes="changes" />
            <button type="button" class="act mt-2" @click="choose(one, false)">
              Judge this job by version {{ one.version }}
            </button>
          </div>
        </li>
      </ul>
      <AnotherCard @chosen="load" />
    </section>
  </main>
</template>
