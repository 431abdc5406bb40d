<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'

import { ask } from '@/api/ask'
import { listOrders, type MoneyView, type OrderView, readMoney } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import OrderForm from './OrderForm.vue'
import OrderRow from './OrderRow.vue'

/** What the job needs before it starts, what is on order, out of the house or on loan, and what came in. */
const job = useJob()
const path = { job_id: job.jobId }
const { data: orders, refusal, load } = useLoaded<OrderView[]>(() => ask(listOrders({ path })))
const { data: money, load: again } = useLoaded<MoneyView>(() => ask(readMoney({ path })))
const reload = () => void Promise.all([load(), again()])
onBeforeUnmount(onChange((changed) => void (changed === job.jobId && reload())))
const ordered = computed(
  () => new Set((orders.value ?? []).filter((one) => one.state !== 'called off').map((one) => one.what)),
)
const needed = computed(() => money.value?.needed ?? [])
const missing = computed(
  () => needed.value.filter((one) => one.kind !== 'tool' && !ordered.value.has(one.name)).length,
)
const late = computed(() => (orders.value ?? []).filter((one) => one.state === 'late').length)
const chosen = ref({ what: '', count: 1 })
</script>

<template>
  <main class="flex-1 px-5 py-3">
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h1 class="text-xl">Parts and orders</h1>
      <RouterLink class="link" :to="{ name: 'money', params: { job: job.jobId } }">Estimate</RouterLink>
      <RouterLink class="link" :to="{ name: 'liners', params: { job: job.jobId } }">Liners</RouterLink>
      <RouterLink class="link" :to="{ name: 'pistons', params: { job: job.jobId } }"
        >Pistons, made to size</RouterLink
      >
      <RouterLink class="link" :to="{ name: 'shelf' }">Shelf of shims</RouterLink>
      <a class="link ml-auto" :href="`/api/jobs/${job.jobId}/brief.pdf`">brief for another shop</a>
    </div>
    <RefusalNote :refusal="refusal" />
    <p v-if="orders" class="mt-1 text-lg">
      <b class="text-2xl">{{ missing }} of {{ needed.filter((one) => one.kind !== 'tool').length }}</b> things
      it needs are not on order yet<template v-if="late"
        >; <b class="text-out">{{ late }} late</b></template
      >.
    </p>
    <div class="mt-2 grid gap-x-8 gap-y-6 lg:grid-cols-[2fr_3fr]">
      <section aria-labelledby="needed">
        <h2 id="needed" class="text-lg">Needed, by its plan</h2>
        <ul>
          <li
            v-for="one in needed"
            :key="one.name"
            class="flex items-start gap-3 border-b border-rule py-1.5"
          >
            <b class="num w-8 text-right">{{ one.count }}</b>
            <span class="min-w-0 flex-1">
              {{ one.name }}
              <span class="block text-sm text-ink-soft"
                >{{ one.why }}<template v-if="one.spares">, {{ one.spares }} spare</template
                ><template v-if="!one.sure">; may not be needed</template></span
              >
            </span>
            <span v-if="one.kind === 'tool'" class="text-sm text-ink-soft">tool</span>
            <span v-else-if="ordered.has(one.name)" class="text-sm text-in">ordered</span>
            <button
              v-else
              type="button"
              class="link text-sm"
              :aria-label="`Order ${one.name}`"
              @click="chosen = { what: one.name, count: one.count }"
            >
              order
            </button>
          </li>
        </ul>
      </section>
      <div class="grid content-start gap-6">
        <section aria-labelledby="orders">
          <h2 id="orders" class="text-lg">On order, out, on loan</h2>
          <p v-if="orders?.length === 0" class="text-ink-soft">
            Nothing is on order. The list beside says what this job needs.
          </p>
          <OrderRow v-for="one in orders ?? []" :key="one.order_id" :one="one" @moved="reload" />
        </section>
        <OrderForm :key="chosen.what" :what="chosen.what" :count="chosen.count" @placed="reload" />
      </div>
    </div>
  </main>
</template>
