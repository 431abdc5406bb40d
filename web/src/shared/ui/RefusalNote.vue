<script setup lang="ts">
import type { Refusal } from '@/api/ask'

defineProps<{ refusal: Refusal | null }>()
</script>

<template>
  <p v-if="refusal" role="alert" class="border-l-4 border-out py-1 pl-3 text-out">{{ refusal.message }}</p>
</template>
