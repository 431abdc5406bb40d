<script setup lang="ts">
import { onMounted } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { whenNotPaired } from '@/api/ask'

import LinkNote from '@/shared/ui/LinkNote.vue'
import KeysHelp from '@/shared/ui/KeysHelp.vue'
import PersonChip from '@/shared/ui/PersonChip.vue'
import UnitSwitch from '@/shared/ui/UnitSwitch.vue'
import { loadCatalogue } from '@/shared/state/catalogue'
import { loadNetwork } from '@/shared/state/network'
import { loadPeople } from '@/shared/state/people'

const route = useRoute()
const router = useRouter()
whenNotPaired(async () => {
  await router.isReady()
  if (route.name !== 'pair') void router.push({ name: 'pair', query: { to: route.fullPath } })
})
onMounted(() => {
  void loadPeople().catch(() => undefined)
  void loadNetwork().catch(() => undefined)
  void loadCatalogue().catch(() => undefined)
})
</script>

<template>
  <div class="flex min-h-screen flex-col">
    <header
      v-if="!route.meta['full']"
      class="flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ink bg-paper px-5 py-1.5"
    >
      <RouterLink to="/" class="flex items-center gap-2 font-bold" title="Floor: all jobs">
        <img src="/icon.svg" alt="" width="28" height="28" />
        <span id="header-mark" :class="route.params['job'] ? 'max-[1399px]:sr-only' : ''">Vallostasis</span>
      </RouterLink>
      <div
        id="header-job"
        class="order-last flex w-full min-w-0 flex-wrap items-center gap-x-3 gap-y-1 empty:hidden lg:order-none lg:w-auto lg:flex-1"
      />
      <nav aria-label="Shop" class="ml-auto flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
        <RouterLink to="/" exact-active-class="font-bold underline underline-offset-8">Floor</RouterLink>
        <RouterLink to="/calendar" active-class="font-bold underline underline-offset-8">Calendar</RouterLink>
        <RouterLink to="/cards" active-class="font-bold underline underline-offset-8">Spec cards</RouterLink>
        <RouterLink to="/shop" active-class="font-bold underline underline-offset-8"
          >Gauges and people</RouterLink
        >
      </nav>
      <UnitSwitch />
      <PersonChip />
    </header>
    <LinkNote />
    <RouterView />
    <KeysHelp v-if="!route.meta['full']" />
  </div>
</template>
