<script setup lang="ts">
import { computed, ref } from 'vue'

import { lengthText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import CausesTable from './CausesTable.vue'
import ResidualStems from './ResidualStems.vue'
import { useCauses } from './useCauses'
import { headline, holesText } from './words'

/** What does not add up: residuals of all holes, causes by weight, the cheapest check that tells them apart. */
const job = useJob()
const { view, refusal, tried } = useCauses(job)
const small = (metres: number) =>
  `${lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0 })} ${unit.value}`
const reads = ref('')
const wrong = computed(
  () => reads.value.trim() !== '' && !Number.isFinite(Number(reads.value.replace(',', '.'))),
)
const SIZE = { µm: 1e-6, thou: 25.4e-6 }
function enter(): void {
  const check = view.value?.proposed
  if (!check || wrong.value || reads.value.trim() === '') return
  const value_m = Number(reads.value.replace(',', '.')) * SIZE[unit.value]
  tried.value = [...tried.value, { check: check.name, where: check.where, value_m }]
  reads.value = ''
}
const capital = (text: string) => text.replace(/^./, (letter) => letter.toUpperCase())
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-3 px-5 py-3">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <RouterLink class="link" :to="{ name: 'home', params: { job: job.jobId } }">Block</RouterLink>
      <h1 class="text-xl">What does not add up</h1>
      <p v-if="view?.holes.length" class="text-ink-soft">
        as read less as the parts say · {{ unit }} · {{ view.far_off.toFixed(1) }} joint u off, below three
        nothing is claimed
      </p>
    </header>
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">The causes are being weighed.</p>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="view?.why_not" class="max-w-3xl border-l-4 border-unsure py-1 pl-4 text-lg font-bold">
      {{ view.why_not }}
    </p>
    <template v-else-if="view">
      <p class="text-2xl font-bold">{{ headline(view, small) }}</p>
      <div
        class="grid grid-cols-[minmax(0,1fr)] items-start gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]"
      >
        <ResidualStems :holes="view.holes" />
        <section
          v-if="view.proposed"
          class="rounded border-2 border-plate"
          aria-label="Cheapest check that tells the causes apart"
        >
          <div class="bg-plate px-4 py-2 text-plate-text">
            <p class="text-sm text-plate-soft">Cheapest check that tells the causes apart</p>
            <p class="text-lg font-bold">
              {{ capital(view.proposed.name) }}: {{ view.proposed.minutes }} min
            </p>
            <p class="text-sm text-plate-soft">
              {{ holesText(view.proposed.where) }} · {{ view.proposed.tools }} · tells
              {{ view.proposed.bits.toFixed(1) }} bit
            </p>
          </div>
          <form class="flex items-end gap-3 px-4 py-2" @submit.prevent="enter">
            <TextField
              v-model="reads"
              class="flex-1"
              label="By how much it moves what was read"
              :unit="unit"
            />
            <button type="submit" class="act" :disabled="reads.trim() === '' || wrong">
              See what it says
            </button>
          </form>
          <p v-if="wrong" class="px-4 pb-2 text-sm text-out" role="alert">
            Type a number, such as −93, or 0.
          </p>
        </section>
      </div>
      <CausesTable v-if="view.explained.length" :view="view" />
      <section v-if="tried.length" aria-label="Tried here">
        <h2 class="text-sm text-ink-soft">Tried here; nothing of it is on record</h2>
        <ul>
          <li
            v-for="(one, at) in tried"
            :key="at"
            class="flex flex-wrap items-center gap-3 border-b border-rule py-1"
          >
            {{ one.check }}, {{ holesText(one.where) }}: <b class="num">{{ small(one.value_m) }}</b>
            <button
              type="button"
              class="link ml-auto min-h-11"
              :aria-label="`Take it back: ${one.check}`"
              @click="tried = tried.filter((_, place) => place !== at)"
            >
              Take it back
            </button>
          </li>
        </ul>
      </section>
      <p v-for="one in view.missing" :key="one" class="text-sm text-unsure">Left out: {{ one }}.</p>
      <p class="caution">
        Change one thing at a time, and nothing that cannot be undone: no part is bought and no ledge cut for
        a number that contradicts another.
      </p>
    </template>
  </main>
</template>
