<script setup lang="ts">
import { computed } from 'vue'

import type { PhraseView } from '@/api/generated'
import { phrasePieces } from '@/shared/format/terms'
import { unit } from '@/shared/state/preferences'

const props = defineProps<{ phrase: PhraseView }>()
const pieces = computed(() => phrasePieces(props.phrase, unit.value))
</script>

<template>
  <span>
    <template v-for="(piece, index) in pieces" :key="index"
      ><span v-if="piece.number" class="whitespace-nowrap"
        ><span class="num">{{ piece.text }}</span
        ><template v-if="piece.unit">&nbsp;{{ piece.unit }}</template></span
      ><template v-else>{{ piece.text }}</template></template
    >
  </span>
</template>
