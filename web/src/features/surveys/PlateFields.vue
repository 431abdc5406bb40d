<script setup lang="ts">
import TextField from '@/shared/ui/TextField.vue'

/** How a plate was held: it says nothing where nobody knows that. */
const fasteners = defineModel<string>('fasteners', { required: true })
const torque = defineModel<string>('torque', { required: true })
</script>

<template>
  <div class="grid grid-cols-2 gap-3">
    <TextField v-model="fasteners" label="Plate held by" path="hold_down" hint="fasteners, as in the build" />
    <TextField v-model="torque" label="torqued to" path="hold_down_torque" hint="N·m, or 52 lbf·ft" />
  </div>
</template>
