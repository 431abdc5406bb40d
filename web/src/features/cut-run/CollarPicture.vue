<script setup lang="ts">
/** The two collars of the stop with the gap that a feeler goes into. */
</script>

<template>
  <svg v-legible viewBox="0 0 90 80" class="h-20 w-24" aria-hidden="true">
    <rect x="30" y="2" width="26" height="76" class="fill-iron stroke-ink-soft" />
    <rect x="16" y="8" width="54" height="20" class="fill-part-wash stroke-part" stroke-width="2" />
    <rect x="16" y="44" width="54" height="20" class="fill-part-wash stroke-part" stroke-width="2" />
    <path d="M54 54H78V48H88V60H78V54" class="fill-in stroke-in" stroke-width="3" />
    <path d="M2 28H10M2 44H10M6 28V44" class="stroke-ink" stroke-width="2" />
  </svg>
</template>
