<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type BillView, readBill } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import { hours, money, number } from './words'

/** The bill at release: what was used and found, the credit for what was not, tax apart. */
const job = useJob()
const { data, refusal } = useLoaded<BillView>(() => ask(readBill({ path: { job_id: job.jobId } })))
const sheets = computed(() =>
  (['parts', 'labour with machining'] as const).map((sheet) => ({
    sheet,
    lines: (data.value?.lines ?? []).filter((one) => one.sheet === sheet),
  })),
)
</script>

<template>
  <main class="mx-auto w-full max-w-4xl flex-1 px-5 py-3">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-xl">Bill</h1>
      <RouterLink class="link" :to="{ name: 'money', params: { job: job.jobId } }">Estimate</RouterLink>
      <a class="link ml-auto" :href="`/api/jobs/${job.jobId}/owner.html`">Page for the owner</a>
      <a class="link" :href="`/api/jobs/${job.jobId}/owner.pdf`">the same as PDF</a>
      <a class="link" :href="`/api/jobs/${job.jobId}/brief.pdf`">brief for another shop</a>
    </div>
    <RefusalNote :refusal="refusal" />
    <template v-if="data">
      <p class="mt-1 text-lg leading-snug">
        <b class="text-2xl">{{ money(data.gross) }} {{ data.currency }}</b> with tax.
        <template v-if="number(data.credit) > 0">
          <b class="text-in">{{ money(data.credit) }} credit</b> against the {{ money(data.agreed) }} agreed
          at worst: {{ data.hours_used }} of {{ data.hours_agreed }} h were used.
        </template>
      </p>
      <p v-if="data.open_lines.length" class="mt-1 text-unsure">
        Still open: {{ data.open_lines.join('; ') }}.
      </p>
      <section v-for="one in sheets" :key="one.sheet" class="mt-3 bg-sheet px-3 py-1">
        <table class="w-full">
          <thead class="border-b-2 border-ink text-right text-sm text-ink-soft">
            <tr>
              <th class="py-2 text-left text-lg text-ink first-letter:uppercase">{{ one.sheet }}</th>
              <th class="font-normal">
                <span :class="one.sheet === 'parts' && 'sr-only'">hours</span>
              </th>
              <th class="font-normal">tax</th>
              <th class="font-normal">{{ data.currency }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in one.lines" :key="line.words" class="border-b border-rule">
              <th scope="row" class="py-1.5 text-left font-normal">{{ line.words }}</th>
              <td class="num text-right">{{ one.sheet === 'parts' ? '' : hours(line.amount) }}</td>
              <td class="num text-right text-ink-soft">{{ number(line.tax_percent) }} %</td>
              <td class="num text-right">{{ money(line.money) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <dl class="mt-3 ml-auto grid w-full max-w-sm grid-cols-2 gap-y-1 text-right">
        <dt>Without tax</dt>
        <dd class="num">{{ money(data.net) }}</dd>
        <template v-for="tax in data.taxes" :key="String(tax.percent)">
          <dt>Tax {{ number(tax.percent) }} %</dt>
          <dd class="num">{{ money(tax.amounts.worst) }}</dd>
        </template>
        <dt class="font-bold">To pay</dt>
        <dd class="num text-lg font-bold">{{ money(data.gross) }} {{ data.currency }}</dd>
      </dl>
    </template>
  </main>
</template>
