<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { lengthText } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import OptionsTable from './OptionsTable.vue'
import { useOptions } from './useOptions'
import { capital, moneyText, summary } from './words'

/** What can be done about a hole that stands too low, side by side, on the land where the gasket bears. */
const job = useJob()
const route = useRoute()
const hole = computed(() => Number(route.params['hole']))
const { view, refusal, draft, picked, option, form, take } = useOptions(job, () => hole.value)
const small = (metres: number) =>
  `${lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })} ${unit.value}`
const WHERE: Record<string, string> = {
  'exchange liners': 'matching',
  'cut and shim': 'cut-plan',
  'skim the deck': 'deck',
  'let a ring in': 'conversion',
}
const next = computed(() => WHERE[view.value?.chosen?.option ?? ''] ?? null)
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-2 px-5 py-3">
    <header class="flex flex-wrap items-center gap-x-4 gap-y-1">
      <RouterLink class="link" :to="{ name: 'cut', params: { job: job.jobId, hole } }"
        >The cut of hole {{ hole }}</RouterLink
      >
      <h1 class="text-xl">Hole {{ hole }}: what can be done</h1>
      <p v-if="view?.land" class="text-ink-soft">
        all on the {{ view.land }}, where the gasket bears<template
          v-for="one in view.other_lands"
          :key="one.land"
          >: over the {{ one.land }} it would read
          <b :class="one.state === 'in' ? 'text-unsure' : ''"
            >{{ small(one.value.value_m) }}, “{{ one.state }}”</b
          ></template
        >
      </p>
      <RouterLink v-if="view" class="link ml-auto" :to="{ name: 'prices' }">{{
        view?.rate != null ? `an hour ${moneyText(view.rate, view.currency)}` : 'set the price of an hour'
      }}</RouterLink>
    </header>
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">
      The options are being worked out.
    </p>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="view?.why_no_options" class="max-w-3xl border-l-4 border-unsure py-1 pl-4 text-lg font-bold">
      {{ view.why_no_options }}
    </p>
    <template v-else-if="view">
      <p
        v-if="view.hold"
        class="border-l-4 border-unsure bg-act-wash px-3 py-1 font-bold text-unsure"
        role="status"
      >
        Hold: nothing is cut here until this is settled. {{ capital(view.hold) }}.
        <RouterLink class="link" :to="{ name: 'adds-up', params: { job: job.jobId } }"
          >What may be behind it</RouterLink
        >
      </p>
      <section v-if="option" class="rounded border-2 border-plate" aria-label="To be decided">
        <div class="bg-plate px-4 py-2 text-plate-text">
          <h2 class="text-lg font-bold">{{ summary(option, view) }}</h2>
          <p v-if="option.worth_words" role="status">{{ option.worth_words }}</p>
        </div>
        <form
          class="grid items-end px-4 py-2 gap-x-4 gap-y-2 sm:grid-cols-[10rem_12rem_minmax(0,1fr)_auto]"
          @submit.prevent="take"
        >
          <TextField v-model="draft.worth" label="The engine is worth" :unit="view.currency" path="worth" />
          <TextField
            v-model="draft.day"
            label="A day out of use costs"
            :unit="view.currency"
            path="day_cost"
          />
          <TextField v-model="draft.reason" label="Because" path="reason" />
          <button type="submit" class="act" :disabled="form.busy.value">Take: {{ option.kind }}</button>
        </form>
        <RefusalChoices :refusal="form.refusal.value" @answer="take" />
      </section>
      <OptionsTable
        :view="view"
        :hole="hole"
        :picked="option?.kind ?? 'leave it'"
        @pick="(kind) => (picked = kind)"
      />
      <p v-if="view.chosen" class="border-l-4 border-in py-1 pl-3">
        <b>Decided: {{ view.chosen.option }}</b
        >, by {{ view.chosen.chosen_by }}, {{ whenText(view.chosen.chosen_at) }}: {{ view.chosen.reason }}
        <RouterLink
          v-if="next"
          class="link ml-3"
          :to="{ name: next, params: next === 'conversion' ? { job: job.jobId, hole } : { job: job.jobId } }"
          >Go there</RouterLink
        >
      </p>
    </template>
  </main>
</template>
