<script setup lang="ts">
import { computed } from 'vue'

import type { AskedView, Length, Limit } from '@/api/generated'
import TextField from '@/shared/ui/TextField.vue'

import { at, put, shimsOf, shimsText, useCard } from './cardDraft'
import LengthField from './LengthField.vue'
import LimitRow from './LimitRow.vue'

/** What a plan needs of the card, asked when it is said how the engine is lined. */
defineProps<{ asked: AskedView[] }>()
const draft = useCard()
const small = computed(() => (draft.value.card.unit === 'mm' ? 'mm' : 'thou'))
const shims = computed({
  get: () => shimsText(draft.value.card.shims),
  set: (text) => (draft.value.card.shims = shimsOf(String(text), draft.value.card.shims)),
})
</script>

<template>
  <fieldset v-if="asked.length" class="grid gap-1">
    <legend class="text-lg font-bold">What a plan needs</legend>
    <div
      class="hidden grid-cols-[11rem_8rem_1fr_10rem] gap-x-3 text-sm text-ink-soft sm:grid"
      aria-hidden="true"
    >
      <span /><span>as the book says it</span><span>book, edition, page</span><span>status</span>
    </div>
    <template v-for="one in asked" :key="one.path">
      <TextField
        v-if="one.kind === 'shims'"
        v-model="shims"
        class="form-row py-1"
        :label="one.label"
        :path="one.path"
        :unit="small"
        hint="on one line, such as 0.1 0.2 0.5"
        list
      />
      <LengthField
        v-else-if="one.kind === 'length'"
        class="form-row py-1"
        :model-value="at(draft.card, one.path) as Length"
        :label="one.label"
        :path="one.path"
        :unit="small"
        always
        @update:model-value="put(draft.card, one.path, $event)"
      />
      <LimitRow
        v-else
        :model-value="at(draft.card, one.path) as Limit"
        :label="one.label"
        :path="one.path"
        :unit="one.kind === 'size limit' ? draft.card.unit : small"
        always
        @update:model-value="put(draft.card, one.path, $event)"
      />
    </template>
  </fieldset>
</template>
