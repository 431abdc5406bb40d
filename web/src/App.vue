<script setup lang="ts">
import { onMounted } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { whenShutOut } from '@/api/ask'

import AppMenu from '@/shared/ui/AppMenu.vue'
import LinkNote from '@/shared/ui/LinkNote.vue'
import KeysHelp from '@/shared/ui/KeysHelp.vue'
import PersonChip from '@/shared/ui/PersonChip.vue'
import ShopLinks from '@/shared/ui/ShopLinks.vue'
import UnitSwitch from '@/shared/ui/UnitSwitch.vue'
import { loadCatalogue } from '@/shared/state/catalogue'
import { loadNetwork, network } from '@/shared/state/network'
import { loadPeople } from '@/shared/state/people'
import { useNarrow } from '@/shared/state/useNarrow'

const route = useRoute()
const router = useRouter()
const isNarrow = useNarrow()
whenShutOut(async (by) => {
  await router.isReady()
  const name = by === 'not paired' ? 'pair' : 'sign-in'
  const isAtDoor = ['pair', 'sign-in', 'read'].includes(String(route.name))
  if (!isAtDoor) void router.push({ name, query: { to: route.fullPath } })
})
function toWork(): void {
  const main = document.querySelector('main')
  if (!main) return
  main.tabIndex = -1
  main.focus()
}
/** Whoever came by a customer's link reads that proof, wherever the address leads. */
async function toReading(): Promise<void> {
  await router.isReady()
  if (network.value?.role === 'reader' && route.name !== 'read') await router.replace({ name: 'read' })
}
onMounted(() => {
  void loadPeople().catch(() => undefined)
  void loadNetwork()
    .then(toReading)
    .catch(() => undefined)
  void loadCatalogue().catch(() => undefined)
})
</script>

<template>
  <div class="flex min-h-screen flex-col">
    <nav aria-label="Skip">
      <a
        href="#work"
        class="sr-only focus:not-sr-only focus:absolute focus:z-40 focus:bg-act focus:px-4 focus:py-2 focus:text-act-text"
        @click.prevent="toWork"
        >Skip to the work</a
      >
    </nav>
    <header
      v-if="!route.meta['full']"
      class="relative flex min-h-12 items-center gap-x-4 border-b-2 border-ink bg-paper px-5 py-0.5 max-lg:gap-x-2 max-lg:px-3 lg:min-h-14 lg:flex-wrap lg:py-1.5"
    >
      <RouterLink to="/" class="flex shrink-0 items-center font-bold" title="Floor: all jobs">
        <img src="/icon.svg" alt="" width="28" height="28" />
        <span id="header-mark" class="pl-2" :class="route.params['job'] ? 'max-[1399px]:sr-only' : ''"
          >Vallostasis</span
        >
      </RouterLink>
      <div
        id="header-job"
        class="flex min-w-0 flex-1 items-center gap-x-3 gap-y-1 empty:hidden lg:flex-wrap"
      />
      <template v-if="!isNarrow">
        <ShopLinks class="ml-auto flex flex-wrap items-center gap-x-3 gap-y-1 text-sm" />
        <UnitSwitch />
        <PersonChip />
      </template>
      <AppMenu v-else />
    </header>
    <LinkNote />
    <span id="work" />
    <RouterView />
    <KeysHelp v-if="!route.meta['full']" />
  </div>
</template>
