<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{ open: boolean; title: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-30" @close="emit('close')">
    <div class="fixed inset-0 bg-ink/40" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-4 pt-[8vh]">
      <DialogPanel class="w-full max-w-xl border-2 border-ink bg-paper p-5 text-ink">
        <div class="mb-3 flex items-start justify-between gap-4">
          <DialogTitle class="text-xl font-bold">{{ title }}</DialogTitle>
          <button type="button" class="quiet text-sm" @click="emit('close')">Close</button>
        </div>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
