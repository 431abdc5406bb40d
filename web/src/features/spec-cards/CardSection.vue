<script setup lang="ts">
import { computed, inject, ref, watch } from 'vue'

import { NO_PROBLEMS, PROBLEMS } from '@/shared/ui/problems'

import { ASKED, cardOf, differingFields, emptyCard, useCard } from './cardDraft'

/** A part of the card that nobody has to fill in: closed until it is looked for, or something in it is wrong. */
const props = defineProps<{ title: string; paths: readonly string[] }>()
const draft = useCard()
const problems = inject(PROBLEMS, ref(NO_PROBLEMS))
const isMine = (path: string) => props.paths.some((one) => path === one || path.startsWith(`${one}.`))
const asked = inject(ASKED, ref<ReadonlySet<string>>(new Set()))
/** A limit with its source and status is one thing that is written; what was asked first stands above. */
const written = computed(() => {
  const paths = differingFields(emptyCard(), cardOf(draft.value)).filter(isMine)
  const fields = new Set(paths.map((path) => path.replace(/(\.length|\.source|\.status)?(\.typed)?$/, '')))
  const isAsked = (field: string) =>
    [...asked.value].some((one) => field === one || field.startsWith(`${one}.`))
  return [...fields].filter((field) => !isAsked(field)).length
})
const open = ref(false)
watch(
  problems,
  (now) => {
    if ([...now.keys()].some(isMine)) open.value = true
  },
  { immediate: true },
)
</script>

<template>
  <details
    :open="open"
    class="border-t border-rule"
    @toggle="open = ($event.target as HTMLDetailsElement).open"
  >
    <summary class="flex min-h-11 cursor-pointer items-center gap-3">
      <span class="text-lg font-bold">{{ title }}</span>
      <span class="text-sm text-ink-soft">{{ written ? `${written} written` : 'nothing written' }}</span>
    </summary>
    <div class="grid gap-4 pb-4">
      <slot />
    </div>
  </details>
</template>
