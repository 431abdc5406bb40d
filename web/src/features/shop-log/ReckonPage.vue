<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import {
  type BuyToolView,
  computeMakeOrBuy,
  computeReturns,
  computeTool,
  type MakeOrBuy,
  type ReturnsInPrice,
} from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Three judgements about money: what returns cost in a price, make or buy, a tool bought or not. */
const { refusal, busy, send } = useForm()
const returns = ref({ good: '', returned: '', cost: '', again: '' })
const inPrice = ref<ReturnsInPrice | null>(null)
const made = ref({ pieces: '', hours: '', setup: '', rate: '', material: '', price: '' })
const makeOrBuy = ref<MakeOrBuy | null>(null)
const tool = ref({ price: '', without: '', with: '', jobs: '' })
const bought = ref<BuyToolView | null>(null)
const n = (text: string) => Number(text.trim().replace(',', '.')) || 0
const money = (value: number | string) => Number(value).toFixed(2)
const askReturns = () =>
  send(async () => {
    const { good, returned, cost, again } = returns.value
    inPrice.value = await ask(
      computeReturns({
        query: { good: n(good), returned: n(returned), cost: n(cost), cost_of_return: n(again) },
      }),
    )
  })
const askMade = () =>
  send(async () => {
    const { pieces, hours, setup, rate, material, price } = made.value
    makeOrBuy.value = await ask(
      computeMakeOrBuy({
        query: {
          pieces: n(pieces),
          hours_each: n(hours),
          setup_h: n(setup),
          rate: n(rate),
          material: n(material),
          price: n(price),
        },
      }),
    )
  })
const askTool = () =>
  send(async () => {
    const one = tool.value
    bought.value = await ask(
      computeTool({
        query: {
          price: n(one.price),
          without: n(one.without),
          with_it: n(one.with),
          jobs_a_year: n(one.jobs),
        },
      }),
    )
  })
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <h1 class="mt-2 text-xl">Reckoned before it is paid</h1>
    <RefusalNote :refusal="refusal" />
    <div class="mt-3 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-3">
      <form class="grid content-start gap-3" aria-labelledby="returns" @submit.prevent="askReturns">
        <h2 id="returns" class="text-lg">Returns inside the price</h2>
        <TextField v-model="returns.good" label="Jobs that stayed away" path="good" />
        <TextField v-model="returns.returned" label="Jobs that came back" path="returned" />
        <TextField v-model="returns.cost" label="A job costs" path="cost" />
        <TextField v-model="returns.again" label="One that comes back costs" path="cost_of_return" />
        <button type="submit" class="act justify-self-start" :disabled="busy">Reckon</button>
        <p v-if="inPrice" role="status">
          <b class="text-2xl">{{ money(inPrice.price) }}</b> bears it:
          {{ (100 * Number(inPrice.share)).toFixed(1) }} % come back, {{ money(inPrice.expected) }} in each
          price.
        </p>
      </form>
      <form class="grid content-start gap-3" aria-labelledby="make" @submit.prevent="askMade">
        <h2 id="make" class="text-lg">Make or buy</h2>
        <TextField v-model="made.pieces" label="Pieces" path="pieces" />
        <TextField v-model="made.hours" label="Hours for each" path="hours_each" />
        <TextField v-model="made.setup" label="Hours of setting up" path="setup_h" />
        <TextField v-model="made.rate" label="An hour costs" path="rate" />
        <TextField v-model="made.material" label="Material of each" path="material" />
        <TextField v-model="made.price" label="One bought" path="price" />
        <button type="submit" class="act justify-self-start" :disabled="busy">Reckon</button>
        <p v-if="makeOrBuy" role="status">
          <b>{{ makeOrBuy.words }}</b> Made {{ money(makeOrBuy.make) }}, bought {{ money(makeOrBuy.buy) }}.
        </p>
      </form>
      <form class="grid content-start gap-3" aria-labelledby="tool" @submit.prevent="askTool">
        <h2 id="tool" class="text-lg">A tool, bought or not</h2>
        <TextField v-model="tool.price" label="The tool costs" path="price" />
        <TextField v-model="tool.without" label="A job without it costs" path="without" />
        <TextField v-model="tool.with" label="A job with it costs" path="with_it" />
        <TextField v-model="tool.jobs" label="Such jobs a year" path="jobs_a_year" />
        <button type="submit" class="act justify-self-start" :disabled="busy">Reckon</button>
        <p v-if="bought" role="status">
          <b>{{ bought.words }}</b>
        </p>
      </form>
    </div>
  </main>
</template>
