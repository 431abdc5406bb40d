<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'

import PersonChip from './PersonChip.vue'
import ShopLinks from './ShopLinks.vue'
import UnitSwitch from './UnitSwitch.vue'

/** On a small screen everything above the work stands behind one button; the views of a job come into it by themselves. */
const isLink = (event: Event) => event.target instanceof Element && event.target.closest('a') !== null
</script>

<template>
  <Popover class="no-print ml-auto">
    <PopoverButton class="quiet min-h-11">Menu</PopoverButton>
    <PopoverPanel
      v-slot="{ close }"
      :unmount="false"
      class="absolute inset-x-0 top-full z-30 max-h-[calc(100vh-3.5rem)] overflow-y-auto border-b-2 border-ink bg-paper px-3 py-3"
    >
      <!-- A link that was followed leaves the menu behind. -->
      <!-- eslint-disable-next-line vuejs-accessibility/click-events-have-key-events, vuejs-accessibility/no-static-element-interactions -->
      <div class="grid gap-4" @click="isLink($event) && close()">
        <div id="menu-job" class="empty:hidden" />
        <ShopLinks
          class="flex flex-wrap gap-x-5 gap-y-1 [&>a]:inline-flex [&>a]:min-h-11 [&>a]:items-center"
        />
        <div class="flex flex-wrap items-center gap-4">
          <UnitSwitch />
          <PersonChip />
        </div>
      </div>
    </PopoverPanel>
  </Popover>
</template>
