<script setup lang="ts">
/** The views of the shop, wherever one is. */
const VIEWS = [
  ['/', 'Floor'],
  ['/calendar', 'Calendar'],
  ['/cards', 'Spec cards'],
  ['/shop', 'Gauges and people'],
  ['/practice', 'Practice'],
] as const
</script>

<template>
  <nav aria-label="Shop">
    <RouterLink
      v-for="[to, label] in VIEWS"
      :key="to"
      :to="to"
      :active-class="to === '/' ? '' : 'font-bold underline underline-offset-8'"
      exact-active-class="font-bold underline underline-offset-8"
      >{{ label }}</RouterLink
    >
  </nav>
</template>
