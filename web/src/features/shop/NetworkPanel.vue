<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  type CodeView,
  type DeviceView,
  listPairedDevices,
  makePairingCode,
  signOutDevice,
} from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { loadNetwork, network } from '@/shared/state/network'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import ReaderLinks from './ReaderLinks.vue'

/** Other screens of the shop: let one in by a code, see who is in, sign one out. */
const REFRESH_MS = 2000
const {
  data: known,
  refusal: notLoaded,
  load: look,
} = useLoaded(async () => {
  await loadNetwork()
  return network.value?.open === true ? ask(listPairedDevices()) : []
})
const devices = computed<DeviceView[]>(() => known.value ?? [])
const code = ref<CodeView | null>(null)
const role = ref<'machinist' | 'owner'>('machinist')
const isEncrypted = window.location.protocol === 'https:'
/** How many were in when the code was made: one more, and it is used up. */
const before = ref(0)
const refusal = ref<Refusal | null>(null)

async function attempt(work: () => Promise<void>): Promise<void> {
  try {
    await work()
    refusal.value = null
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
watch(known, () => {
  if (code.value && (devices.value.length > before.value || new Date(code.value.expires_at) < new Date())) {
    code.value = null
  }
})
const makeCode = () =>
  attempt(async () => {
    code.value = await ask(makePairingCode({ body: { role: role.value } }))
    before.value = devices.value.length
  })
const signOut = (device: DeviceView) =>
  attempt(async () => {
    const path = { paired_device_id: device.paired_device_id }
    known.value = await ask(signOutDevice({ path }))
    before.value = devices.value.length
    if (mine(device)) await loadNetwork()
  })
const mine = (device: DeviceView) => device.paired_device_id === network.value?.device?.paired_device_id
const picture = computed(() =>
  code.value ? `data:image/svg+xml;utf8,${encodeURIComponent(code.value.qr_svg)}` : '',
)

useIntervalFn(() => void look(), REFRESH_MS)
</script>

<template>
  <section aria-label="On the shop's network">
    <h2 class="text-xl">On the shop's network</h2>
    <RefusalNote :refusal="refusal ?? notLoaded" />
    <p v-if="network && !network.open" class="max-w-prose py-2">
      Only this machine reaches Vallostasis now. To use a tablet or phone at the block, start it with
      <code class="num">./vallo start --host 0.0.0.0</code>; every device is then let in by a code.
    </p>
    <template v-if="network?.open">
      <p class="py-2">
        Reached at <b v-for="address in network.addresses" :key="address" class="num mr-3">{{ address }}</b>
      </p>
      <ul>
        <li
          v-for="device in devices"
          :key="device.paired_device_id"
          class="flex items-center justify-between gap-4 border-b border-rule py-1"
        >
          <span
            ><b>{{ device.name }}</b
            >{{ mine(device) ? ' (this device)' : '' }}
            <span class="block text-sm text-ink-soft"
              >{{ device.role }}, let in {{ whenText(device.paired_at) }}</span
            ></span
          >
          <button type="button" class="quiet min-h-11 text-sm" @click="signOut(device)">Sign out</button>
        </li>
      </ul>
      <p v-if="devices.length === 0" class="text-ink-soft">No other device is let in.</p>
      <div v-if="code" class="mt-3 grid gap-2">
        <img :src="picture" alt="Code for a camera" class="w-full max-w-56" />
        <p>
          Scan it with the device, or open its address there and type
          <b class="num text-2xl" data-code>{{ code.code }}</b>. It lets one device in, within ten minutes.
        </p>
      </div>
      <div class="mt-3 flex flex-wrap items-center gap-3">
        <button type="button" class="quiet min-h-11" @click="makeCode">
          {{ code ? 'Another code' : 'Let a device in' }}
        </button>
        <label class="flex items-center gap-2 text-sm text-ink-soft">
          as
          <select v-model="role" class="field w-auto!">
            <option value="machinist">a machinist’s: all work</option>
            <option value="owner">an owner’s: lets others in</option>
          </select>
        </label>
      </div>
      <p v-if="network.fingerprint" class="mt-3 text-sm text-ink-soft">
        Our own certificate, which the device’s browser asks about once, SHA-256
        <b class="font-mono break-all text-ink">{{ network.fingerprint }}</b>
      </p>
      <ReaderLinks />
      <p v-if="!isEncrypted" class="caution mt-3">
        The shop's network carries this unencrypted: use it on a network you trust, or start with
        <code class="num">--tls</code>. Over it a page cannot be loaded again while the link is down; readings
        wait in the open page until it returns.
      </p>
    </template>
  </section>
</template>
