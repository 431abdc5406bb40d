<script setup lang="ts">
import { bareShim } from '@/shared/format/bareUnit'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

import type { ShimDraft } from './shimDraft'

/** The shims that lie under a liner, each by its nominal size, as measured, and which side is up. */
const shims = defineModel<ShimDraft[]>({ required: true })
const MOST_SHIMS = 4
const SIDES = (['bevel down', 'bevel up', 'no bevel'] as const).map((side) => ({ value: side, label: side }))
const add = () => (shims.value = [...shims.value, { nominal: '', measured: '', side_up: 'bevel down' }])
</script>

<template>
  <div v-for="(shim, index) in shims" :key="index" class="grid grid-cols-2 gap-3 border-l-4 border-act pl-3">
    <TextField
      v-model="shim.nominal"
      label="Shim, nominal"
      :path="`shims.${index}.nominal`"
      :bare="bareShim(unit)"
    />
    <TextField
      v-model="shim.measured"
      label="as measured"
      :bare="bareShim(unit)"
      :path="`shims.${index}.measured`"
      hint="empty: not measured"
    />
    <ChoiceField v-model="shim.side_up" label="Side" :choices="SIDES" />
    <button
      type="button"
      class="quiet self-end text-sm"
      @click="shims = shims.filter((_, at) => at !== index)"
    >
      Leave this shim out
    </button>
  </div>
  <button
    v-if="shims.length < MOST_SHIMS"
    type="button"
    class="quiet justify-self-start text-sm"
    @click="add()"
  >
    Add a shim
  </button>
</template>
