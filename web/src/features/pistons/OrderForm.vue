<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type OrderedView, type PartOrderView, readPartOrder } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

/** What is ordered to a bore: sizes from what was read, what is agreed besides as typed, a page for the maker. */
const props = defineProps<{ hole: number; jobId: string }>()
const sheet = ref<PartOrderView | null>(null)
const refusal = ref<Refusal | null>(null)
onMounted(async () => {
  try {
    sheet.value = await ask(readPartOrder({ path: { job_id: props.jobId, hole: props.hole } }))
  } catch (error) {
    refusal.value = asRefusal(error)
  }
})
const EMPTY = { count: '', rings: '', pin: '', crown: '', form: '', until: '', words: '' }
const FIELDS: [keyof typeof EMPTY, string][] = [
  ['count', 'How many'],
  ['rings', 'Rings and grooves'],
  ['pin', 'Pin and its opening'],
  ['crown', 'Crown'],
  ['form', 'Wings, ports, lead'],
  ['until', 'Wanted by'],
  ['words', 'Besides'],
]
const draft = useLocalStorage(`vallo-order-${props.jobId}-${props.hole}`, { ...EMPTY })
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
function sizes(one: OrderedView): string {
  if (one.least_m === null || one.greatest_m === null) return 'no size yet'
  const [least, greatest] = [size(one.least_m), size(one.greatest_m)]
  return `${least === greatest ? least : `${least} to ${greatest}`} ${SIZE_WITH[unit.value]}`
}
const page = computed(() => {
  const asked = new URLSearchParams({ ...draft.value, unit: unit.value })
  return `/api/jobs/${props.jobId}/pistons/${props.hole}/order.pdf?${asked.toString()}`
})
</script>

<template>
  <section class="mt-2 grid gap-3 border-t border-rule pt-2" :aria-label="`To order for hole ${hole}`">
    <RefusalNote :refusal="refusal" />
    <dl v-if="sheet" class="grid gap-x-8 gap-y-2 lg:grid-cols-3">
      <div v-for="one in sheet.ordered" :key="one.what" class="min-w-0">
        <dt class="text-ink-soft">
          {{ one.what }} <span class="text-sm">({{ one.material }})</span>
        </dt>
        <dd>
          <b class="num text-xl" :class="one.why_not && 'text-unsure'">{{ sizes(one) }}</b>
          <p v-if="one.why_not" class="text-sm font-bold"><PhraseText :phrase="one.why_not" /></p>
          <p v-for="(said, at) in one.says" :key="at" class="text-sm text-ink-soft">
            <PhraseText :phrase="said" />
          </p>
        </dd>
      </div>
    </dl>
    <div v-if="sheet" class="grid grid-cols-2 gap-2 sm:grid-cols-4">
      <TextField
        v-for="[name, label] in FIELDS"
        :key="name"
        v-model="draft[name]"
        :label="label"
        :path="name"
      />
      <a
        v-if="sheet.ordered.some((one) => one.least_m !== null)"
        class="act inline-flex min-h-11 items-center justify-center self-end"
        :href="page"
        target="_blank"
        rel="noopener"
        >Print the order</a
      >
    </div>
    <p v-if="sheet?.weeks" class="text-sm text-ink-soft">
      The ladder of the card reckons with {{ sheet.weeks }} weeks.
    </p>
  </section>
</template>
