<script setup lang="ts">
import { onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { type OrderHold, readOrderHold, type ShimNeed } from '@/api/generated'
import { onChange } from '@/shared/state/link'
import { useLoaded } from '@/shared/state/useLoaded'

/** Shims over the whole block: the shelf, the holes that need one, what to order. */
const props = defineProps<{ shims: ShimNeed[]; jobId: string }>()
const { data: order, load } = useLoaded<OrderHold>(() =>
  ask(readOrderHold({ path: { job_id: props.jobId } })),
)
onBeforeUnmount(onChange((changed) => (changed === null || changed === props.jobId ? load() : undefined)))
</script>

<template>
  <section aria-label="Shims">
    <h2 class="text-lg">Shims for this block</h2>
    <table class="w-full border-collapse text-sm">
      <thead>
        <tr class="border-b border-ink-soft text-left text-ink-soft">
          <th scope="col" class="py-1 font-normal">size</th>
          <th scope="col" class="text-right font-normal">on the shelf</th>
          <th scope="col" class="pl-6 font-normal">needed for</th>
          <th scope="col" class="text-right font-normal">to order</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="shim in shims" :key="shim.typed" class="border-b border-rule">
          <th scope="row" class="num py-1.5 text-left">{{ shim.typed }}</th>
          <td class="num text-right">{{ shim.on_shelf }}</td>
          <td class="pl-6">{{ shim.holes.length ? `hole ${shim.holes.join(', ')}` : '–' }}</td>
          <td class="num text-right" :class="shim.to_order > 0 && 'font-bold text-unsure'">
            {{ shim.to_order || '–' }}
          </td>
        </tr>
      </tbody>
    </table>
    <p class="text-sm text-ink-soft">
      With one spare of each size in use: common practice.
      <template v-if="order && !order.why_not"
        >Order list: <a class="link" :href="`/api/jobs/${jobId}/shim-order.csv`" download>CSV</a> ·
        <a class="link" :href="`/api/jobs/${jobId}/shim-order.pdf`" download>PDF</a> ·
      </template>
      <RouterLink class="link" :to="{ name: 'shelf' }">the shelf</RouterLink>
    </p>
    <p v-if="order?.why_not" class="border-l-4 border-unsure py-1 pl-3 text-unsure">
      {{ order.why_not }}
      <RouterLink class="link" :to="{ name: 'adds-up', params: { job: jobId } }"
        >What does not add up</RouterLink
      >
    </p>
  </section>
</template>
