<script setup lang="ts">
import { computed } from 'vue'

import type { FindingKind, FindingView } from '@/api/generated'
import { whenText } from '@/shared/format/time'

/** What was found of some kinds at one hole, a line each; what is not sound stands out by its weight. */
const props = defineProps<{
  findings: FindingView[]
  hole: number | null
  kinds: FindingKind[]
  long?: boolean
}>()
const emit = defineEmits<{ notes: [finding: FindingView] }>()
const own = computed(() =>
  props.findings.filter((one) => one.hole === props.hole && props.kinds.includes(one.kind)),
)
</script>

<template>
  <ul v-if="own.length">
    <li v-for="one in own" :key="one.finding_id" :title="`${one.found_by}, ${whenText(one.found_at)}`">
      <span class="mr-1 text-ink-soft">{{ long ? `${one.kind}: ${one.part}` : one.part }}</span>
      <component :is="one.sound ? 'span' : 'b'">{{ one.word }}</component>
      <span v-if="one.typed" class="ml-1">{{ one.typed }}</span>
      <span v-if="one.words" class="block text-sm text-ink-soft">{{ one.words }}</span>
      <button
        type="button"
        class="link ml-2 min-h-8 text-sm"
        :aria-label="`Notes and photos of ${one.part} ${one.word}`"
        @click="emit('notes', one)"
      >
        <img
          v-if="one.photo"
          :src="`/api/notes/${one.photo}/photo`"
          :alt="`Photo of ${one.part} ${one.word}`"
          class="inline-block h-10 border border-rule"
        />
        <template v-else>{{ one.notes ? `${one.notes} notes` : 'photo' }}</template>
      </button>
    </li>
  </ul>
  <span v-else class="text-ink-soft">–</span>
</template>
