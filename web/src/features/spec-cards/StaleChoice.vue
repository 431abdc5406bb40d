<script setup lang="ts">
import { computed } from 'vue'

import type { SpecCard } from '@/api/generated'

import { differingFields, wordsOf } from './cardDraft'

/** Two people edited one card: what differs, and whose version comes next. Nothing is lost either way. */
const props = defineProps<{ message: string; theirs: SpecCard; mine: SpecCard }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()
const fields = computed(() => [...new Set(differingFields(props.theirs, props.mine).map(wordsOf))])
</script>

<template>
  <div role="alert" class="my-2 border-l-4 border-unsure py-1 pl-3">
    <p>{{ message }}</p>
    <p v-if="fields.length" class="text-sm">
      Yours and theirs differ at: <b>{{ fields.join('; ') }}</b>.
    </p>
    <div class="mt-2 flex gap-3">
      <button type="button" class="act" @click="emit('mine')">Save mine on top</button>
      <button type="button" class="quiet" @click="emit('theirs')">Take theirs, drop mine</button>
    </div>
  </div>
</template>
