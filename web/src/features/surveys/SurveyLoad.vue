<script setup lang="ts">
import { computed } from 'vue'

import type { Quantity } from '@/api/generated'
import { featureOf } from '@/shared/state/catalogue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'

import { choicesOf, loadOf, partsOfLoad } from './ways'

/** How a part is held and loaded: what stands on its deck, and its main caps. */
const props = defineProps<{ quantity: Quantity }>()
const load = defineModel<string>({ required: true })
const feature = computed(() => featureOf(props.quantity))
const loads = computed(() => choicesOf(feature.value?.loads))
const others = computed(() => feature.value?.also_loads ?? [])
const caps = computed(() => choicesOf(others.value))
const first = computed({
  get: () => partsOfLoad(others.value, load.value)[0],
  set: (chosen) => (load.value = loadOf(chosen, also.value)),
})
const also = computed({
  get: () => partsOfLoad(others.value, load.value)[1],
  set: (chosen) => (load.value = loadOf(first.value, chosen)),
})
</script>

<template>
  <div v-if="loads.length > 1" class="grid gap-3 sm:grid-cols-2">
    <ChoiceField v-model="first" label="Held" :choices="loads" path="load" />
    <ChoiceField v-if="caps.length > 1" v-model="also" label="Main caps" :choices="caps" path="load" />
  </div>
</template>
