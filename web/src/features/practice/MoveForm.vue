<script setup lang="ts">
import { reactive, watch } from 'vue'

import type { OfferView } from '@/api/generated'
import { unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'

/** One move that may be made: its fields, its caution, its key. What was typed stays until it is taken. */
const props = defineProps<{ offer: OfferView; busy: boolean; moves: number }>()
const emit = defineEmits<{ make: [name: string, given: Record<string, string>] }>()
/** What ends an exercise is chosen, not left as it lies there. */
const usualOf = (field: OfferView['fields'][number]) =>
  props.offer.last && field.kind === 'choice' ? '' : field.usual
const given = reactive<Record<string, string>>({})
let isSent = false
/** A choice that is offered no longer is no choice; a number that was taken is asked anew. */
watch(
  () => [props.offer.fields, props.moves] as const,
  ([fields, moves], before) => {
    const isTaken = isSent && before !== undefined && before[1] !== moves
    for (const field of fields) {
      const now = given[field.name] ?? ''
      const isGone = field.kind === 'choice' && now !== '' && !field.choices.includes(now)
      if (isGone || (isTaken && field.kind !== 'choice')) given[field.name] = usualOf(field)
      given[field.name] ??= usualOf(field)
    }
    if (isTaken) isSent = false
  },
  { immediate: true },
)
const choices = (field: OfferView['fields'][number]) => [
  ...(props.offer.last ? [{ value: '', label: 'choose' }] : []),
  ...field.choices.map((value) => ({ value, label: value })),
]
function make(): void {
  isSent = true
  const asked = Object.fromEntries(props.offer.fields.map((field) => [field.name, given[field.name] ?? '']))
  emit('make', props.offer.name, asked)
}
</script>

<template>
  <form
    class="border-t border-rule py-2 first:border-t-0"
    :aria-label="offer.label"
    novalidate
    @submit.prevent="make"
  >
    <p v-if="offer.caution" class="caution mb-1">
      {{ offer.caution }} Local rules and licensed practice come first.
    </p>
    <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
      <template v-for="field in offer.fields" :key="field.name">
        <ChoiceField
          v-if="field.kind === 'choice'"
          v-model="given[field.name]!"
          class="min-w-[7rem] flex-1"
          :label="field.label"
          :choices="choices(field)"
          :path="`given.${field.name}`"
        />
        <TextField
          v-else
          v-model="given[field.name]!"
          class="min-w-[8rem] flex-1"
          :label="field.label"
          :unit="field.unit || undefined"
          :bare="field.kind === 'length' ? unit : undefined"
          :path="`given.${field.name}`"
        />
      </template>
      <button :class="offer.last ? 'act' : 'quiet min-h-11'" :disabled="busy" class="shrink-0">
        {{ offer.label }}
        <span v-if="offer.words" class="text-sm font-normal opacity-80">{{ offer.words }}</span>
      </button>
    </div>
  </form>
</template>
