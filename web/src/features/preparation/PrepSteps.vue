<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PreparationView } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { PreparationNow } from './usePreparation'

/** Cleaning step by step: what the deck was scraped with, bolt holes, dowels. */
const props = defineProps<{ now: PreparationNow; ready: PreparationView }>()
const { refusal, busy, send } = useForm()
const tool = ref(props.ready.tools[0] ?? '')
const words = ref('')
const bolts = ref('')
const dowels = ref('')

type Kind = 'deck scraped' | 'bolt holes chased' | 'dowels drawn'
function note(kind: Kind, count: string): Promise<void> {
  return send(async () => {
    const place = kind === 'deck scraped' ? tool.value : ''
    await props.now.step({ kind, place, count: Number(count || '0'), words: words.value })
    words.value = bolts.value = dowels.value = ''
  })
}
/** What is no tool for a deck can be said, and is answered. */
const tools = computed(() =>
  [...props.ready.tools, 'power grinder or disc'].map((one) => ({ value: one, label: one })),
)
const scraped = computed(() => {
  const passes = props.ready.scraped
  const used = [
    ...new Set(props.ready.steps.filter((one) => one.kind === 'deck scraped').map((one) => one.place)),
  ]
  return passes ? `${passes} ${passes === 1 ? 'pass' : 'passes'}: ${used.join(', ')}` : 'not yet'
})
</script>

<template>
  <section aria-label="Clean">
    <h2 class="flex items-baseline border-b border-ink text-lg">
      Clean
      <span class="ml-auto text-sm font-normal" :class="ready.uncleaned.length ? 'text-unsure' : 'text-in'">{{
        ready.uncleaned.length ? `${ready.uncleaned.length} to write down` : 'written down'
      }}</span>
    </h2>
    <form
      class="flex flex-wrap items-end gap-2 border-b border-rule py-2"
      @submit.prevent="note('deck scraped', '1')"
    >
      <ChoiceField
        v-model="tool"
        class="min-w-40 flex-1"
        label="Deck scraped with"
        path="place"
        :choices="tools"
      />
      <button type="submit" class="quiet min-h-11" :disabled="busy">One pass more</button>
      <p class="w-full text-sm text-ink-soft">{{ scraped }}</p>
    </form>
    <form
      class="flex items-end gap-2 border-b border-rule py-2"
      @submit.prevent="note('bolt holes chased', bolts)"
    >
      <TextField v-model="bolts" class="w-24" label="Bolt holes" path="count_bolts" whole />
      <button type="submit" class="quiet min-h-11" :disabled="busy || bolts === ''">Chased</button>
      <span class="num ml-auto pb-2 text-xl font-bold">{{ ready.bolt_holes ?? '–' }}</span>
    </form>
    <form
      class="flex items-end gap-2 border-b border-rule py-2"
      @submit.prevent="note('dowels drawn', dowels)"
    >
      <TextField v-model="dowels" class="w-24" label="Dowels" path="count_dowels" whole />
      <button type="submit" class="quiet min-h-11" :disabled="busy || dowels === ''">Drawn</button>
      <span class="num ml-auto pb-2 text-xl font-bold">{{ ready.dowels ?? '–' }}</span>
    </form>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
