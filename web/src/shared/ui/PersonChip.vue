<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { signOut, signOutDevice } from '@/api/generated'
import { loadNetwork, network, signedIn } from '@/shared/state/network'
import { people, person } from '@/shared/state/people'
import { ground, personId } from '@/shared/state/preferences'

const router = useRouter()
async function leave(): Promise<void> {
  await ask(signOut()).catch(() => undefined)
  await loadNetwork()
  await router.push({ name: 'sign-in' })
}
async function signDeviceOut(): Promise<void> {
  const device = network.value?.device
  if (!device) return
  await ask(signOutDevice({ path: { paired_device_id: device.paired_device_id } })).catch(() => undefined)
  await loadNetwork()
  await router.push({ name: 'pair' })
}
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="quiet text-sm" title="Who is reading">{{ person?.name ?? 'Who is it?' }}</MenuButton>
    <MenuItems
      class="absolute right-0 z-20 mt-1 w-56 border border-ink bg-sheet py-1 text-sm focus:outline-none"
    >
      <p class="px-3 py-1 text-xs text-ink-soft">
        {{ signedIn ? `${signedIn.name} is signed in` : 'Readings are kept under this name' }}
      </p>
      <MenuItem v-if="signedIn" v-slot="{ active }">
        <button
          type="button"
          class="block w-full px-3 py-2 text-left"
          :class="active && 'bg-iron'"
          @click="leave"
        >
          Sign out
        </button>
      </MenuItem>
      <MenuItem v-if="people.length === 0" v-slot="{ active }">
        <RouterLink to="/shop" class="block px-3 py-2" :class="active && 'bg-iron'"
          >Add the first name</RouterLink
        >
      </MenuItem>
      <MenuItem v-for="one in signedIn ? [] : people" :key="one.person_id" v-slot="{ active }">
        <button
          type="button"
          class="block w-full px-3 py-2 text-left"
          :class="[active && 'bg-iron', one.person_id === personId && 'font-bold']"
          @click="personId = one.person_id"
        >
          {{ one.name }}
        </button>
      </MenuItem>
      <MenuItem v-slot="{ active }">
        <button
          type="button"
          class="block w-full border-t border-rule px-3 py-2 text-left"
          :class="active && 'bg-iron'"
          @click="ground = ground === 'dark' ? 'light' : 'dark'"
        >
          {{ ground === 'dark' ? 'Paper by day' : 'After dark' }}
        </button>
      </MenuItem>
      <MenuItem v-if="network?.device" v-slot="{ active }">
        <button
          type="button"
          class="block w-full border-t border-rule px-3 py-2 text-left"
          :class="active && 'bg-iron'"
          @click="signDeviceOut"
        >
          Sign this device out
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
