<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { listThermometers, setUpThermometer, type ThermometerBody } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Thermometers that talk: what they say now, and setting one up. */
const ASK_MS = 2000
const { data, load } = useLoaded(() => ask(listThermometers()))
useIntervalFn(() => void load(), ASK_MS)
const name = ref('')
const url = ref('')
const liesOn = ref<string>('part')
const { refusal, send } = useForm()
const PLACES = [
  { value: 'part', label: 'the block or part' },
  { value: 'room', label: 'the room' },
  { value: 'block', label: 'a block from the oven' },
  { value: 'liner', label: 'a liner from the cold' },
]

function save(): Promise<void> {
  return send(async () => {
    await ask(
      setUpThermometer({
        body: { name: name.value, url: url.value, lies_on: liesOn.value as ThermometerBody['lies_on'] },
      }),
    )
    name.value = ''
    url.value = ''
    await load()
  })
}
</script>

<template>
  <section aria-label="Thermometers">
    <h2 class="text-lg">Thermometers that talk</h2>
    <p v-if="data?.length === 0" class="text-ink-soft">None yet: temperatures are typed.</p>
    <ul>
      <li
        v-for="one in data ?? []"
        :key="one.name"
        class="grid grid-cols-[1fr_auto] gap-3 border-b border-rule py-1.5"
      >
        <span
          ><b>{{ one.name }}</b>
          <span class="ml-1.5 text-ink-soft"
            >on {{ PLACES.find((place) => place.value === one.lies_on)?.label
            }}{{ one.simulated ? ', simulated' : '' }}</span
          ></span
        >
        <span v-if="one.celsius !== null && one.state === 'live'" class="num"
          >{{ Number(one.celsius).toFixed(1) }} °C</span
        >
        <span v-else class="text-unsure">{{ one.message || one.state }}</span>
      </li>
    </ul>
    <form class="mt-2 grid gap-3" aria-label="Set a thermometer up" @submit.prevent="save">
      <RefusalNote :refusal="refusal" />
      <div class="grid grid-cols-2 gap-3">
        <TextField v-model="name" label="Name of a thermometer" path="name" />
        <ChoiceField v-model="liesOn" label="Lies on" :choices="PLACES" path="lies_on" />
      </div>
      <TextField
        v-model="url"
        label="Talks at"
        path="url"
        hint="/dev/ttyUSB1 or socket://127.0.0.1:8433, in °C"
      />
      <button type="submit" class="quiet min-h-11 justify-self-start" :disabled="!name.trim()">
        Set it up
      </button>
    </form>
  </section>
</template>
