<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute as useAddress, useRouter } from 'vue-router'

import type { Operation } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import StateGate from '@/shared/charts/StateGate.vue'
import { useNarrow } from '@/shared/state/useNarrow'
import { onPedal } from '@/shared/ui/typing'

import HoldList from './HoldList.vue'
import OperationPanel from './OperationPanel.vue'
import RouteDown from './RouteDown.vue'
import RouteDrawing from './RouteDrawing.vue'
import SchoolList from './SchoolList.vue'
import TwoClocks from './TwoClocks.vue'
import WaitForm from './WaitForm.vue'
import WaitList from './WaitList.vue'
import { useRoute } from './useRoute'
import { blockedWords } from './words'

/** The route of a job: where the work stands, what holds it, what it waits for, what it re-opens. */
const job = useJob()
const now = useRoute(job)
const { route, missing } = now
const address = useAddress()
const router = useRouter()
const narrow = useNarrow()
const panel = ref<{ toggleClock: () => void } | null>(null)
const schools = ref<InstanceType<typeof SchoolList> | null>(null)

const holes = computed(() => job.block.value?.holes.map((hole) => hole.number) ?? [])
const at = computed<Operation | null>(() => {
  const named = address.query['at']
  const known = route.value?.operations.find((one) => one.operation === named)
  return known?.operation ?? route.value?.next ?? null
})
const chosen = computed(() => route.value?.operations.find((one) => one.operation === at.value) ?? null)
const choose = (operation: Operation) => void router.replace({ query: { at: operation } })
/** Questions whose other side would make another route of it stand above the drawing. */
const asked = computed(
  () => route.value?.schools.filter((one) => one.sides.some((side) => side.first !== null)).slice(0, 2) ?? [],
)
onPedal(() => panel.value?.toggleClock())
</script>

<template>
  <main class="flex-1 px-5 py-3">
    <RefusalNote v-if="!route" :refusal="missing" />
    <p v-if="!route && !missing" class="py-6 text-ink-soft" aria-busy="true">The route is being loaded.</p>
    <template v-if="route && job.block.value">
      <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 class="text-xl">Route</h1>
        <p class="text-ink-soft">
          {{ job.block.value.card.construction }}, {{ holes.length }} hole{{ holes.length > 1 ? 's' : '' }} ·
          <RouterLink class="link" :to="{ name: 'time', params: { job: job.jobId } }"
            >what it takes and took</RouterLink
          >
        </p>
        <div class="ml-auto flex flex-wrap gap-3">
          <div
            v-for="school in asked"
            :key="school.question"
            class="flex"
            role="group"
            :aria-label="`In short: ${school.question}`"
          >
            <button
              v-for="side in school.sides"
              :key="side.name"
              type="button"
              class="min-h-9 border border-ink px-3 text-sm"
              :class="side.chosen ? 'bg-ink font-bold text-paper' : 'text-ink-soft'"
              :aria-pressed="side.chosen"
              @click="schools?.look(school, side)"
            >
              {{ side.name }}
            </button>
          </div>
        </div>
      </div>
      <p class="mt-2 text-lg leading-snug">
        Worked
        <b class="text-2xl"
          >{{ route.clocks.worked_h.toFixed(1) }} of {{ route.clocks.planned_h.toFixed(1) }} h</b
        >, waited <b class="text-2xl">{{ (route.clocks.waited_h / 24).toFixed(1) }} days</b>.
        <template v-if="blockedWords(route)">Blocked: {{ blockedWords(route) }}.</template>
      </p>
      <ul v-if="route.reopened.length" class="mt-1 flex flex-wrap gap-x-6 gap-y-1" aria-label="Read again">
        <li v-for="one in route.reopened" :key="`${one.quantity}${one.part}`" class="flex items-center gap-2">
          <StateGate state="read again" class="shrink-0" />
          <RouterLink
            class="link"
            :to="{ name: 'survey', params: { job: job.jobId, quantity: one.quantity, part: one.part } }"
            >{{ one.quantity }}, {{ one.title }}: read again</RouterLink
          >
          <span class="text-ink-soft">{{ one.because }} since, by {{ one.by }}; {{ one.hours }} h</span>
        </li>
      </ul>
      <component
        :is="narrow ? RouteDown : RouteDrawing"
        class="mt-2"
        :route="route"
        :holes="holes"
        :at="at"
        @choose="choose"
      />
      <div class="mt-4 grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,8fr)_minmax(0,11fr)_minmax(0,8fr)]">
        <HoldList :route="route" />
        <div class="min-w-0">
          <WaitList :waits="route.waits" @here="(id) => now.ended(id, '')" />
          <WaitForm :now="now" :route="route" :at="at" />
          <TwoClocks class="mt-4" :clocks="route.clocks" />
        </div>
        <OperationPanel
          v-if="chosen"
          ref="panel"
          :key="chosen.operation"
          :now="now"
          :route="route"
          :one="chosen"
        />
      </div>
      <h2 class="mt-6 text-lg">Schools</h2>
      <p class="text-sm text-ink-soft">
        Shops differ. This job follows the dark side of each; a change says first what it changes.
      </p>
      <SchoolList ref="schools" :schools="route.schools" :now="now" />
    </template>
  </main>
</template>
