<script setup lang="ts">
import type { Stoppable } from '@/shared/state/useStoppable'

/** What is under way and for how long, with the way to give it up; nothing while nothing is. */
defineProps<{ waiting: Stoppable; what: string; giveUp: string }>()
</script>

<template>
  <span v-if="waiting.seconds.value !== null" role="status" class="flex flex-wrap items-center gap-3">
    {{ what }} … <b class="num">{{ waiting.seconds.value }} s</b>
    <button type="button" class="quiet" @click="waiting.stop()">{{ giveUp }}</button>
  </span>
</template>
