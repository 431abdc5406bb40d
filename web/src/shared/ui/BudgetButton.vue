<script setup lang="ts">
import { ref } from 'vue'

import type { BudgetView } from '@/api/generated'
import { withinText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import BudgetDialog from './BudgetDialog.vue'

/** A ± that opens into its budget. */
defineProps<{
  /** Expanded uncertainty. [m] */
  expanded: number
  title: string
  /** Which of the budgets is its own. */
  what: string
  fetch: () => Promise<BudgetView[]>
}>()
const open = ref(false)
</script>

<template>
  <button type="button" class="link num" :title="`Open the budget: ${what}`" @click="open = true">
    {{ withinText(expanded, unit) }}</button><BudgetDialog
    :open="open"
    :title="title"
    :what="what"
    :fetch="fetch"
    @close="open = false"
  />
</template>
