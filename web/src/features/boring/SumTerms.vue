<script setup lang="ts">
/** A sum that stays on the screen: each term with its sign, its unit and what it is. */
defineProps<{ terms: { sign: string; value: string; unit: string; what: string }[] }>()
</script>

<template>
  <section class="flex flex-wrap items-start gap-x-4 gap-y-2 border-b border-rule pb-2" aria-label="The size">
    <div v-for="one in terms" :key="one.what" class="flex gap-3">
      <span class="text-2xl text-ink-soft">{{ one.sign }}</span>
      <p>
        <b class="num text-2xl">{{ one.value }}</b> <span class="text-sm text-ink-soft">{{ one.unit }}</span>
        <span class="block text-sm text-ink-soft">{{ one.what }}</span>
      </p>
    </div>
    <slot />
  </section>
</template>
