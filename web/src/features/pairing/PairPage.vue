<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { pairDevice } from '@/api/generated'
import { admitted } from '@/shared/state/link'
import { loadCatalogue } from '@/shared/state/catalogue'
import { loadNetwork, network } from '@/shared/state/network'
import { loadPeople } from '@/shared/state/people'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A device that is not let in yet: the code from a paired screen opens the door. */
const route = useRoute()
const router = useRouter()
/** Behind the code stands the fingerprint of our own certificate, where there is one. */
const [typed = '', fingerprint = ''] = route.hash.slice(1).split('.')
const code = ref(typed)
const device = ref(/Mobi|Android/.test(navigator.userAgent) ? 'Phone at the bench' : 'Another screen')
const { refusal, busy, send } = useForm()

function pair(): Promise<void> {
  return send(async () => {
    await ask(pairDevice({ body: { code: code.value, device: device.value } }))
    admitted()
    await Promise.all([loadNetwork(), loadPeople(), loadCatalogue()])
    await router.replace(String(route.query['to'] ?? '/'))
  })
}
onMounted(() => void loadNetwork().catch(() => undefined))
</script>

<template>
  <main class="mx-auto grid w-full max-w-md content-start gap-4 px-5 py-8">
    <h1 class="text-2xl">Let this device in</h1>
    <p v-if="network && (network.at_this_machine || network.device)">
      It is let in already. <RouterLink to="/" class="link">To the floor: all jobs</RouterLink>
    </p>
    <template v-else>
      <p>
        On the machine itself, or on a screen that is let in, open <b>Gauges and people</b> and press
        <b>Let a device in</b>.
      </p>
      <p v-if="fingerprint" class="text-sm text-ink-soft">
        The certificate is of this shop’s own making: the browser asks about it once. Its SHA-256 there has to
        be
        <b class="font-mono break-all text-ink">{{ fingerprint }}</b>
      </p>
      <form class="grid gap-4" @submit.prevent="pair">
        <TextField v-model="code" label="Code, such as 4K7P-9TXM" path="code" />
        <TextField v-model="device" label="Name of this device" path="device" />
        <RefusalNote v-if="refusal?.problems.length === 0" :refusal="refusal" />
        <button type="submit" class="act" :disabled="busy || code.trim() === ''">Let it in</button>
      </form>
    </template>
  </main>
</template>
