<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { assumeRoom, readRoom } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import SourceBadge from '@/shared/ui/SourceBadge.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** How warm the shop is taken to be where nobody took a temperature; every ± without one follows. */
const room = useLoaded(() => ask(readRoom()))
const isUsual = computed(() => {
  const now = room.data.value
  return Number(now?.mean_c) === 20 && Number(now?.standard_k) === 5
})
const mean = ref('')
const standard = ref('')
const { refusal, busy, send } = useForm()

function save(): Promise<void> {
  return send(async () => {
    const body = { mean: mean.value, standard: standard.value, person_id: personId.value }
    room.data.value = await ask(assumeRoom({ body }))
    mean.value = standard.value = ''
  })
}
</script>

<template>
  <section aria-label="Room without a thermometer">
    <h2 class="text-lg">Where nobody took a temperature</h2>
    <p v-if="room.data.value" class="text-sm">
      The shop is taken to be at <b class="num">{{ Number(room.data.value.mean_c) }} °C</b>, give or take
      <b class="num">{{ Number(room.data.value.standard_k) }} K</b> (one standard deviation). Part and master
      expand differently in it: that stands in every ± that lacks a thermometer.
      <SourceBadge v-if="isUsual" status="common practice" source="no published source" />
    </p>
    <form class="mt-2 flex flex-wrap items-end gap-3" @submit.prevent="save">
      <div class="w-28"><TextField v-model="mean" label="Usually" unit="°C" path="mean" /></div>
      <div class="w-28"><TextField v-model="standard" label="Give or take" unit="K" path="standard" /></div>
      <button type="submit" class="quiet min-h-11" :disabled="busy || !mean.trim() || !standard.trim()">
        Take it to be so
      </button>
    </form>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
