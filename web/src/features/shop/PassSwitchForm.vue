<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type PassSwitchView, readPassSwitch, setUpPassSwitch } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** The switch at the cutter that ends a pass: how it stands, and where it sends its lines. */
const REFRESH_MS = 2000
const { data: found, load } = useLoaded<PassSwitchView | null>(() => ask(readPassSwitch()))
useIntervalFn(() => void load(), REFRESH_MS)
const { refusal, busy, send } = useForm()
const url = ref('')
const stands = computed(() => {
  if (!found.value) return 'None is set up: space, the pedal or a tap ends a pass.'
  const name = found.value.simulated ? 'A simulated switch' : 'A switch'
  const { state, message, taps } = found.value
  return state === 'live'
    ? `${name} is live, pressed ${taps} times so far.`
    : `${name} is set up. ${message || state}.`
})
const save = () =>
  send(async () => {
    await ask(setUpPassSwitch({ body: { url: url.value } }))
    url.value = ''
    await load()
  })
</script>

<template>
  <section class="mt-6 border-t-2 border-ink pt-2" aria-labelledby="pass-switch">
    <h2 id="pass-switch" class="text-lg">Switch that ends a pass</h2>
    <p role="status">{{ stands }}</p>
    <form class="flex flex-wrap items-end gap-2 pt-2" aria-label="Set up the switch" @submit.prevent="save">
      <TextField
        v-model="url"
        class="min-w-64 flex-1"
        label="Sends to"
        path="url"
        hint="/dev/ttyUSB0 or socket://127.0.0.1:8435; it says pass at each press"
      />
      <button type="submit" class="quiet min-h-11" :disabled="busy">Listen there from now on</button>
      <RefusalNote :refusal="refusal" />
    </form>
  </section>
</template>
