<script setup lang="ts" generic="Item">
/** Rows of a card that can be added and removed: lands, parts between, shims. */
defineProps<{ items: Item[]; columns: string; addLabel: string }>()
const emit = defineEmits<{ add: []; remove: [index: number] }>()
</script>

<template>
  <div v-for="(item, index) in items" :key="index" class="grid items-start gap-3" :class="columns">
    <slot :item="item" :index="index" />
    <button
      type="button"
      class="quiet text-sm"
      :class="index === 0 && 'mt-5'"
      :aria-label="`Remove row ${index + 1}`"
      @click="emit('remove', index)"
    >
      Remove
    </button>
  </div>
  <button type="button" class="quiet justify-self-start text-sm" @click="emit('add')">{{ addLabel }}</button>
</template>
