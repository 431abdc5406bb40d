<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type GaugeVersion, listGauges } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import { isOwner, signedIn } from '@/shared/state/network'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'

import GaugeForm from './GaugeForm.vue'
import GaugeTable from './GaugeTable.vue'
import BackupPanel from './BackupPanel.vue'
import NetworkPanel from './NetworkPanel.vue'
import OwnPassword from './OwnPassword.vue'
import PeopleList from './PeopleList.vue'
import SignInPanel from './SignInPanel.vue'
import TalkingGauges from './TalkingGauges.vue'

/** Gauges with what can be trusted in them, and the people who read them. */
const { data: gauges, refusal, load } = useLoaded(() => ask(listGauges()))
const edited = ref<GaugeVersion | null>(null)

async function saved(): Promise<void> {
  edited.value = null
  await load()
}
</script>

<template>
  <main
    class="mx-auto grid w-full max-w-[1400px] gap-x-10 grid-cols-[minmax(0,1fr)] gap-y-6 px-5 py-4 lg:grid-cols-[minmax(0,1fr)_22rem]"
  >
    <ShopNav class="lg:col-span-2" />
    <section aria-label="Gauges" class="lg:col-span-2">
      <h1 class="text-xl">Gauges</h1>
      <RefusalNote :refusal="refusal" />
      <p v-if="gauges?.length === 0" class="py-2">
        No gauge yet. Add the ones that protrusion, depths and flanges are read with.
      </p>
      <GaugeTable
        v-else-if="gauges"
        :gauges="gauges"
        :edited="edited?.gauge_id ?? null"
        @change="edited = $event"
      />
    </section>
    <div class="grid content-start gap-8">
      <GaugeForm
        v-if="edited"
        :key="edited.gauge_version_id"
        :gauge="edited"
        @saved="saved"
        @leave="edited = null"
      />
      <TalkingGauges :gauges="gauges ?? []" />
      <GaugeForm v-if="!edited" key="new" :gauge="null" @saved="saved" />
    </div>
    <div class="grid content-start gap-8">
      <PeopleList />
      <SignInPanel v-if="isOwner" />
      <OwnPassword v-if="signedIn" />
      <NetworkPanel v-if="isOwner" />
      <BackupPanel />
    </div>
  </main>
</template>
