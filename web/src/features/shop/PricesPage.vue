<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { listPrices, type PriceView, setPrice } from '@/api/generated'
import { amountAt } from '@/shared/format/amounts'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import PartPrices from './PartPrices.vue'

/** The price list of the shop: hours, money beside them, days of waiting, from which options are told by their cost. */
const { data: prices, refusal: missing, load } = useLoaded<PriceView[]>(() => ask(listPrices()))
const { refusal, busy, send } = useForm()
const editing = ref<PriceView | null>(null)
const draft = ref({ hours: '', money: '', days: '', currency: '' })
function edit(one: PriceView): void {
  editing.value = one
  const text = (value: number | null) => (value === null ? '' : String(value))
  draft.value = {
    hours: text(one.hours),
    money: text(one.money),
    days: text(one.days),
    currency: one.currency,
  }
}
const save = (): Promise<void> =>
  send(async () => {
    const { hours, money, days, currency } = draft.value
    const kind = editing.value?.kind ?? 'an hour of the shop'
    await ask(
      setPrice({
        body: {
          kind,
          hours: amountAt('hours', hours) ?? 0,
          money: amountAt('money', money),
          days: amountAt('days', days) ?? 0,
          currency,
          person_id: personId.value,
        },
      }),
    )
    editing.value = null
    await load()
  })
const isHour = (one: PriceView | null) => one?.kind === 'an hour of the shop'
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <h1 class="text-xl">Price list</h1>
    <RefusalNote v-if="!prices" :refusal="missing" />
    <div v-else class="mt-2 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,8fr)_minmax(0,4fr)]">
      <div class="relative overflow-x-auto">
        <table class="w-full text-left" aria-label="Prices">
          <thead class="text-sm text-ink-soft">
            <tr class="border-b border-ink">
              <th class="py-1 font-normal">what</th>
              <th class="text-right font-normal">hours</th>
              <th class="text-right font-normal">money beside them</th>
              <th class="text-right font-normal">days of waiting</th>
              <th class="pl-6 font-normal">known by</th>
              <th><span class="sr-only">change</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in prices" :key="one.kind" class="border-b border-rule">
              <th class="py-1.5">{{ one.kind }}</th>
              <td class="num text-right">{{ isHour(one) ? '–' : one.hours }}</td>
              <td class="num text-right text-lg" :class="one.money === null && 'text-unsure'">
                {{ one.money === null ? 'not known' : `${one.money} ${isHour(one) ? one.currency : ''}` }}
              </td>
              <td class="num text-right">{{ isHour(one) ? '–' : one.days }}</td>
              <td class="pl-6 text-sm" :class="one.set_by ? '' : 'text-ink-soft'">
                {{ one.set_by ?? 'usual, no published source' }}
              </td>
              <td class="text-right">
                <button
                  type="button"
                  class="link min-h-11"
                  :aria-label="`Set ${one.kind}`"
                  @click="edit(one)"
                >
                  Set
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <form v-if="editing" class="grid content-start gap-3" aria-label="Set a price" @submit.prevent="save">
        <h2 class="text-lg font-bold">{{ editing.kind }}</h2>
        <TextField
          v-if="!isHour(editing)"
          v-model="draft.hours"
          label="Hours of work"
          unit="h"
          path="hours"
        />
        <TextField
          v-model="draft.money"
          :label="isHour(editing) ? 'What it costs' : 'Money beside the hours'"
          path="money"
        />
        <TextField v-if="isHour(editing)" v-model="draft.currency" label="Written as" path="currency" />
        <TextField
          v-if="!isHour(editing)"
          v-model="draft.days"
          label="Days of waiting"
          unit="d"
          path="days"
        />
        <button type="submit" class="act justify-self-start" :disabled="busy">Save the price</button>
        <RefusalChoices :refusal="refusal" @answer="save" />
      </form>
      <p v-else class="text-ink-soft">
        Hours and days stand as they usually are until the shop sets its own; money is never guessed. What is
        set takes the place of what was, and the old number stays on record.
      </p>
    </div>
    <PartPrices />
  </main>
</template>
