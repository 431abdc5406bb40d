<script setup lang="ts">
import { ref, watch } from 'vue'

import { ask } from '@/api/ask'
import {
  listPartPrices,
  type MoneyRulesView,
  type PartPriceView,
  readMoneyRules,
  type Rounding,
  setMoneyRules,
  setPartPrice,
} from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

/** What parts cost as a rule and how long they take to come; tax and how the shop rounds. */
const { data: prices } = useLoaded<PartPriceView[]>(() => ask(listPartPrices()))
const { data: rules } = useLoaded<MoneyRulesView>(() => ask(readMoneyRules()))
const ROUNDINGS = ['half a cent up', 'half a cent to the even one', 'down to the cent'].map((one) => ({
  value: one,
  label: one,
}))
const part = ref({ name: '', money: '', days: '' })
const rule = ref({ tax: '', rounding: '', returns: '' })
watch(rules, (now) => {
  if (now)
    rule.value = {
      tax: String(Number(now.tax_percent)),
      rounding: now.rounding,
      returns: String(Number(now.returns_percent)),
    }
})
const { refusal, busy, send } = useForm()
const plain = (text: string) => text.trim().replace(',', '.')
const savePart = () =>
  send(async () => {
    const { name, money, days } = part.value
    prices.value = await ask(
      setPartPrice({
        body: { name, money: plain(money), days: Number(days) || 0, person_id: personId.value },
      }),
    )
    part.value = { name: '', money: '', days: '' }
  })
const saveRules = () =>
  send(async () => {
    const { tax, rounding, returns } = rule.value
    rules.value = await ask(
      setMoneyRules({
        body: {
          tax_percent: plain(tax),
          rounding: rounding as Rounding,
          returns_percent: plain(returns),
          person_id: personId.value,
        },
      }),
    )
  })
</script>

<template>
  <div class="mt-8 grid gap-x-10 gap-y-6 lg:grid-cols-[8fr_4fr]">
    <section aria-labelledby="part-prices">
      <h2 id="part-prices" class="text-lg">Parts</h2>
      <p class="text-sm text-ink-soft">
        By the name they have on a job's list; an estimate takes them from here.
      </p>
      <table class="w-full text-left">
        <thead class="text-sm text-ink-soft">
          <tr>
            <th class="font-normal">Part</th>
            <th class="text-right font-normal">each</th>
            <th class="pl-4 text-right font-normal">days</th>
            <th class="pl-4 font-normal">set by</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in prices ?? []" :key="one.name" class="border-b border-rule">
            <td class="py-1">{{ one.name }}</td>
            <td class="num text-right">{{ Number(one.money).toFixed(2) }}</td>
            <td class="num pl-4 text-right">{{ one.days }}</td>
            <td class="pl-4 text-ink-soft">{{ one.set_by }}</td>
          </tr>
        </tbody>
      </table>
      <form class="mt-3 grid gap-3 sm:grid-cols-4" aria-label="Price of a part" @submit.prevent="savePart">
        <TextField v-model="part.name" label="Part" path="name" />
        <TextField v-model="part.money" label="Each" path="money" />
        <TextField v-model="part.days" label="Days to come" path="days" />
        <button
          type="submit"
          class="act self-end justify-self-start"
          :disabled="busy || !part.name || !part.money"
        >
          Set it
        </button>
      </form>
    </section>
    <form class="grid content-start gap-3" aria-labelledby="rules" @submit.prevent="saveRules">
      <h2 id="rules" class="text-lg">How it is reckoned</h2>
      <TextField v-model="rule.tax" label="Tax, per cent" path="tax_percent" />
      <ChoiceField
        v-model="rule.rounding"
        label="Rounded, once for the tax of each rate"
        :choices="ROUNDINGS"
        path="rounding"
      />
      <TextField v-model="rule.returns" label="Of a hundred jobs so many come back" path="returns_percent" />
      <button type="submit" class="act justify-self-start" :disabled="busy">Save it</button>
      <RefusalNote
        :refusal="elsewhere(refusal, ['name', 'money', 'days', 'tax_percent', 'rounding', 'returns_percent'])"
      />
    </form>
  </div>
</template>
