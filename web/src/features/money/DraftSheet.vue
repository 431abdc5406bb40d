<script setup lang="ts">
import type { DraftLineView } from '@/api/generated'

import type { TypedLine } from './words'

/** One sheet while it is typed: words, at least, at worst, and where the draft's figures come from. */
const props = defineProps<{
  title: string
  unit: 'money' | 'hours'
  lines: readonly TypedLine[]
  sources: Map<string, DraftLineView>
}>()
const emit = defineEmits<{ add: []; remove: [line: TypedLine] }>()
const source = (line: TypedLine) => props.sources.get(line.key)
</script>

<template>
  <section class="relative overflow-x-auto bg-sheet px-3 py-1" :aria-label="title">
    <table class="w-full">
      <thead class="border-b-2 border-ink text-left text-sm text-ink-soft">
        <tr>
          <th class="py-2 text-lg text-ink">{{ title }}</th>
          <th class="w-24 font-normal">{{ unit }}, low</th>
          <th class="w-24 font-normal">worst</th>
          <th class="w-16 font-normal">tax %</th>
          <th class="font-normal">from</th>
          <th><span class="sr-only">Take out</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(line, at) in lines" :key="line.key || at" class="border-b border-rule">
          <td class="py-1 pr-2">
            <input v-model="line.words" class="field" :aria-label="`${title}, line ${at + 1}: what`" />
          </td>
          <td class="pr-2">
            <input
              v-model="line.low"
              inputmode="decimal"
              class="field num"
              :aria-label="`${line.words}: at least`"
            />
          </td>
          <td class="pr-2">
            <input
              v-model="line.worst"
              inputmode="decimal"
              class="field num"
              :aria-label="`${line.words}: at worst`"
            />
          </td>
          <td class="pr-2">
            <input
              v-model="line.tax"
              inputmode="decimal"
              class="field num"
              :aria-label="`${line.words}: tax in per cent`"
            />
          </td>
          <td
            class="pr-2 text-sm"
            :class="source(line)?.unpriced ? 'font-bold text-unsure' : 'text-ink-soft'"
          >
            {{ source(line)?.source ?? 'own line' }}
          </td>
          <td>
            <button
              type="button"
              class="link"
              :aria-label="`Take out ${line.words || 'this line'}`"
              @click="emit('remove', line)"
            >
              out
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <button type="button" class="link my-2" @click="emit('add')">
      Add a line to {{ title.toLowerCase() }}
    </button>
  </section>
</template>
