<script setup lang="ts">
import type { Quantity, ReadingBody } from '@/api/generated'
import { bareWords } from '@/shared/format/bareUnit'
import { useUnderstood } from '@/shared/state/useUnderstood'

/** What a bare number is, and what is typed so far will be taken for: said before it is taken. */
const props = defineProps<{
  text: string
  quantity: Quantity
  bare: ReadingBody['bare_unit']
  zero?: number
}>()
const understood = useUnderstood(
  () => props.text,
  () => props.quantity,
  () => props.bare,
  () => props.zero ?? 0,
)
</script>

<template>
  <span class="text-sm text-ink-soft" role="status" aria-label="What the number means">
    <template v-if="understood"
      >is <b class="num text-ink">{{ understood }}</b></template
    >
    <template v-else>a bare number is {{ bareWords(bare) }}</template>
  </span>
</template>
