<script setup lang="ts">
import type { CaseView } from '@/api/generated'

/** A case of the shop: how it showed, what was tried in vain, what it was, what found it in how many minutes. */
defineProps<{ one: CaseView }>()
</script>

<template>
  <article class="border-b border-rule py-2">
    <p class="font-bold">{{ one.cause }}</p>
    <p>
      {{ one.symptom }}
      <span class="text-sm text-ink-soft"
        >· {{ one.job }}, kept by {{ one.kept_by
        }}<template v-if="one.alike !== null"
          >, lies like this one: <b class="num">{{ one.alike.toFixed(2) }}</b></template
        ></span
      >
    </p>
    <p class="text-sm">
      Found with: {{ one.found_with }}, <b class="num">{{ one.minutes }} min</b> in all
    </p>
    <p v-if="one.false_leads.length" class="text-sm text-ink-soft">
      Tried in vain: {{ one.false_leads.join('; ') }}
    </p>
    <p v-if="one.words" class="text-sm">{{ one.words }}</p>
  </article>
</template>
