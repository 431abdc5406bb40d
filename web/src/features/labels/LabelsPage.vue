<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import { ask } from '@/api/ask'
import { type LabelOf, type LabelSize, listLabels } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

/** Labels for what must not be mixed up: holes, liners, pistons, shims; a code on each opens what it is of. */
const job = useJob()
const route = useRoute()
const { data, refusal } = useLoaded(
  () => ask(listLabels({ path: { job_id: job.jobId } })),
  () => job.block.value?.event,
)
const KINDS: [LabelOf, string][] = [
  ['hole', 'Holes'],
  ['liner', 'Liners'],
  ['piston', 'Pistons'],
  ['shim', 'Shims'],
]
const size = ref<LabelSize>('89 x 36 mm')
const used = ref('0')
const chosen = ref<string[]>([])
const labels = computed(() => data.value?.labels ?? [])
/** Those of the part one comes from; the holes where one comes from nowhere. */
watch(
  labels,
  (now, before) => {
    if (before?.length) chosen.value = chosen.value.filter((key) => now.some((one) => one.key === key))
    else chosen.value = now.filter((one) => one.of === (route.query['of'] ?? 'hole')).map((one) => one.key)
  },
  { immediate: true },
)
const sizes = computed(() =>
  Object.keys(data.value?.places ?? {}).map((one) => ({ value: one, label: one.replace(' x ', ' × ') })),
)
const places = computed(() => data.value?.places[size.value] ?? 1)
const first = computed(() => labels.value.find((one) => chosen.value.includes(one.key)))
const base = `/api/jobs/${job.jobId}/labels`
const svgOf = (key: string) => `${base}/one.svg?${new URLSearchParams({ key, size: size.value }).toString()}`
const pdf = computed(() => {
  const query = new URLSearchParams({ size: size.value, used: String(Math.max(0, Number(used.value) || 0)) })
  for (const key of chosen.value) query.append('key', key)
  return `${base}/all.pdf?${query.toString()}`
})
const isAll = (of: LabelOf) =>
  labels.value.filter((one) => one.of === of).every((one) => chosen.value.includes(one.key))
function toggle(of: LabelOf): void {
  const mine = labels.value.filter((one) => one.of === of).map((one) => one.key)
  const rest = chosen.value.filter((key) => !mine.includes(key))
  chosen.value = isAll(of) ? rest : [...rest, ...mine]
}
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4 max-lg:px-3">
    <h1 class="text-xl">Labels</h1>
    <RefusalNote :refusal="refusal" />
    <p v-if="!data && !refusal" class="py-4 text-ink-soft">Loading the labels …</p>
    <div
      v-if="data"
      class="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-6 pt-2 lg:grid-cols-[minmax(0,1fr)_24rem]"
    >
      <div class="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-4">
        <section v-for="[of, title] in KINDS" :key="of" :aria-label="title">
          <div class="flex items-baseline gap-4 border-b border-rule">
            <h2 class="text-lg">{{ title }}</h2>
            <button
              v-if="labels.some((one) => one.of === of)"
              type="button"
              class="link min-h-11 text-sm"
              :aria-label="`${title}: ${isAll(of) ? 'none' : 'all'}`"
              @click="toggle(of)"
            >
              {{ isAll(of) ? 'none' : 'all' }}
            </button>
            <span v-else class="text-sm text-ink-soft">none in this job yet</span>
          </div>
          <ul class="grid grid-cols-[minmax(0,1fr)] gap-x-6 sm:grid-cols-2">
            <li v-for="one in labels.filter((label) => label.of === of)" :key="one.key">
              <label class="flex min-h-11 items-center gap-3 py-1">
                <input v-model="chosen" type="checkbox" class="size-5 shrink-0" :value="one.key" />
                <span class="min-w-0 leading-tight">
                  <b>{{ one.title }}</b>
                  <span class="block truncate text-sm text-ink-soft">{{
                    one.lines.slice(1).join(' · ')
                  }}</span>
                </span>
              </label>
            </li>
          </ul>
        </section>
      </div>
      <aside class="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
        <img
          v-if="first"
          :src="svgOf(first.key)"
          :alt="`Label: ${first.title}, ${first.lines.join(', ')}`"
          class="w-full border border-rule bg-sheet"
        />
        <p v-else class="text-lg">Choose what is to be labelled.</p>
        <ChoiceField v-model="size" label="Label stock" :choices="sizes" />
        <TextField
          v-if="places > 1"
          v-model="used"
          label="Labels used of the first sheet"
          :hint="`of ${places}, counted row by row`"
          whole
        />
        <a v-if="first" class="act inline-flex items-center justify-center" :href="pdf" download="labels.pdf"
          >PDF of {{ chosen.length }} {{ chosen.length === 1 ? 'label' : 'labels' }}</a
        >
        <a v-if="first" class="link" :href="svgOf(first.key)" :download="`${first.key}.svg`"
          >{{ first.title }} as SVG</a
        >
        <p v-if="first" class="text-sm text-ink-soft">
          The code opens <span class="break-all">{{ first.address }}</span>.
        </p>
      </aside>
    </div>
  </main>
</template>
