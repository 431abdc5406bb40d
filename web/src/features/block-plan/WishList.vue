<script setup lang="ts">
import { computed } from 'vue'

import type { BlockPlansView, HoleWishBody } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

/** What is decided of single holes before the plan is made: left, cut, on a shim, aimed at a protrusion. */
const props = defineProps<{ plans: BlockPlansView; holes: number[] }>()
const wishes = defineModel<HoleWishBody[]>({ required: true })
const emit = defineEmits<{ changed: [] }>()
const LOCKS = [
  { value: 'free', label: 'as it comes out' },
  { value: 'leave it', label: 'leave it' },
  { value: 'cut it', label: 'cut it' },
]
const sizes = computed(() => [
  { value: '', label: 'any shim' },
  ...props.plans.shim_sizes_m.map((metres) => {
    const shown = `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
    return { value: shown, label: shown }
  }),
])
const of = (hole: number): Required<HoleWishBody> => {
  const found = wishes.value.find((one) => one.hole === hole)
  return { hole, lock: found?.lock ?? 'free', shim: found?.shim ?? '', target: found?.target ?? '' }
}
function put(hole: number, change: Partial<HoleWishBody>): void {
  const next = { ...of(hole), ...change }
  wishes.value = [...wishes.value.filter((one) => one.hole !== hole), next].sort((a, b) => a.hole - b.hole)
  emit('changed')
}
const path = (hole: number, field: string) =>
  `holes.${wishes.value.findIndex((one) => one.hole === hole)}.${field}`
</script>

<template>
  <ul class="grid gap-x-6 gap-y-1 sm:grid-cols-2" aria-label="Decided before the plan">
    <li v-for="hole in holes" :key="hole" class="grid grid-cols-[2rem_1.2fr_1fr_1fr] items-end gap-2">
      <b class="pb-2 text-lg">{{ hole }}</b>
      <ChoiceField
        :model-value="of(hole).lock"
        :label="`Hole ${hole}`"
        hide-label
        :choices="LOCKS"
        @update:model-value="put(hole, { lock: $event as HoleWishBody['lock'] })"
      />
      <ChoiceField
        :model-value="of(hole).shim"
        :label="`Shim of hole ${hole}`"
        hide-label
        :choices="sizes"
        :path="path(hole, 'shim')"
        @update:model-value="put(hole, { shim: $event })"
      />
      <TextField
        :model-value="of(hole).target"
        :label="`Aim of hole ${hole}`"
        hide-label
        hint="aim"
        :path="path(hole, 'target')"
        @change="put(hole, { target: ($event.target as HTMLInputElement).value })"
      />
    </li>
  </ul>
</template>
