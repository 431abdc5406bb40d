<script setup lang="ts">
import { computed } from 'vue'

import type { Quantity } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'

import { ALSO_LOADS, choicesOf, loadOf, LOADS, partsOfLoad } from './ways'

/** How a part is held and loaded: what stands on its deck, and its main caps. */
const props = defineProps<{ quantity: Quantity }>()
const load = defineModel<string>({ required: true })
const loads = computed(() => choicesOf(LOADS[props.quantity]))
const caps = computed(() => choicesOf(ALSO_LOADS[props.quantity]))
const first = computed({
  get: () => partsOfLoad(props.quantity, load.value)[0],
  set: (chosen) => (load.value = loadOf(chosen, also.value)),
})
const also = computed({
  get: () => partsOfLoad(props.quantity, load.value)[1],
  set: (chosen) => (load.value = loadOf(first.value, chosen)),
})
</script>

<template>
  <div v-if="loads.length > 1" class="grid gap-3 sm:grid-cols-2">
    <ChoiceField v-model="first" label="Held" :choices="loads" path="load" />
    <ChoiceField v-if="caps.length > 1" v-model="also" label="Main caps" :choices="caps" path="load" />
  </div>
</template>
