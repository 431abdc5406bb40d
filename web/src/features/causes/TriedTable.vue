<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Refusal } from '@/api/ask'
import type { ExperimentView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

/** Everything that was tried, what changed nothing too; a change of one's own is put down before it is made. */
const props = defineProps<{
  tried: readonly ExperimentView[]
  hasOpen: boolean
  busy: boolean
  refusal: Refusal | null
}>()
const draft = defineModel<{ change: string; expected: string }>({ required: true })
const emit = defineEmits<{ begin: [change: string, expected: string] }>()
const own = ref(false)
const small = (metres: number) =>
  `${lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })} ${unit.value}`
const rows = computed(() =>
  props.tried.map((one) => ({
    one,
    found: one.value_m === null ? one.words : small(one.value_m),
    says: one.overtaken ? `counts no longer: ${one.overtaken}` : one.value_m === null ? '' : one.words,
  })),
)
</script>

<template>
  <section aria-label="What was tried">
    <div class="relative overflow-x-auto">
      <table class="w-full min-w-[40rem] text-left text-sm">
        <thead class="text-ink-soft">
          <tr class="border-b border-ink">
            <th scope="col" class="w-36 py-1 font-normal">Tried</th>
            <th scope="col" class="font-normal">what was changed, one thing at a time</th>
            <th scope="col" class="font-normal">expected</th>
            <th scope="col" class="w-40 font-normal">found</th>
            <th scope="col" class="w-24 font-normal">took</th>
            <th scope="col" class="font-normal">says</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="{ one, found, says } in rows"
            :key="one.experiment_id"
            class="border-b border-rule"
            :class="one.is_open && 'bg-act-wash'"
          >
            <td class="py-1.5 pr-2">{{ whenText(one.begun_at) }} {{ one.begun_by }}</td>
            <td class="pr-3">{{ one.change }}</td>
            <td class="pr-3 text-ink-soft">{{ one.expected }}</td>
            <td class="num pr-2 font-bold">{{ one.is_open ? 'under way' : found || 'nothing' }}</td>
            <td class="num">
              {{ one.minutes === null ? '' : `${one.minutes} min`
              }}{{ one.money === null ? '' : `, ${one.money}` }}
            </td>
            <td :class="one.overtaken && 'text-unsure'">{{ says }}</td>
          </tr>
          <tr v-if="!rows.length">
            <td colspan="6" class="py-2 text-ink-soft">
              Nothing yet. What changes nothing is kept here too: it need not be tried again.
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button
      v-if="!own && !hasOpen"
      type="button"
      class="link min-h-11 text-sm"
      :aria-expanded="own"
      @click="own = true"
    >
      Something else is going to be changed
    </button>
    <form
      v-else-if="own && !hasOpen"
      class="mt-2 grid max-w-4xl items-end gap-3 md:grid-cols-[1fr_1fr_auto]"
      aria-label="A change of one's own"
      @submit.prevent="emit('begin', draft.change, draft.expected)"
    >
      <TextField v-model="draft.change" label="What is changed" path="change" />
      <TextField v-model="draft.expected" label="What is expected, before anybody knows" path="expected" />
      <button type="submit" class="quiet" :disabled="busy">Begin it</button>
      <RefusalNote v-if="refusal && !refusal.problems.length" :refusal="refusal" />
    </form>
  </section>
</template>
