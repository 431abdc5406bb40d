<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { OptionView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { NUMBER_TONE } from '@/shared/format/tones'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import { rowsOf } from '@/shared/charts/rows'
import { usePhone } from '@/shared/state/useNarrow'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import CentresPanel from './CentresPanel.vue'
import DecideForm from './DecideForm.vue'
import LadderChart from './LadderChart.vue'
import LookForm from './LookForm.vue'
import OptionsTable from './OptionsTable.vue'
import PlanOfWork from './PlanOfWork.vue'
import { useCleanUp } from './useCleanUp'
import WallSection from './WallSection.vue'
import WallSteps from './WallSteps.vue'

/** Will it clean up? Every bore against the ladder, the worst one first; what is decided, and what contradicts it. */
const job = useJob()
const now = useCleanUp(job)
const { data: view, refusal } = now
const route = useRoute()
const router = useRouter()
const chosen = computed(
  () => Number(route.query['hole']) || (view.value?.worst ?? view.value?.holes[0]?.hole ?? null),
)
const phone = usePhone()
const rows = computed(() => rowsOf([view.value?.holes ?? []], phone.value ? 3 : Infinity))
const hole = computed(() => view.value?.holes.find((one) => one.hole === chosen.value) ?? null)
const option = ref<OptionView | null>(null)
const isDeciding = ref(false)
const look = computed(() => view.value?.try_first ?? view.value?.step ?? null)
const state = computed(
  () => hole.value?.rungs.find((one) => one.step.oversize_um === look.value?.oversize_um)?.state ?? null,
)
function choose(next: number): void {
  option.value = null
  void router.replace({ query: { ...route.query, hole: String(next) } })
}
function take(next: OptionView): void {
  option.value = next
  isDeciding.value = true
}
const decided = computed(() => {
  const made = hole.value?.decision
  if (!made) return ''
  const step = made.oversize_m === null ? '' : ` +${lengthText(made.oversize_m, unit.value)}`
  return `${made.choice}${step}, by ${made.decided_by}: ${made.reason}`
})
</script>

<template>
  <main class="w-full px-5 py-2">
    <RefusalNote v-if="!view" :refusal="refusal" />
    <p v-if="!view && !refusal" class="py-6 text-ink-soft" aria-busy="true">The bores are being loaded.</p>
    <template v-if="view">
      <section
        v-for="one in view.contradictions"
        :key="one.hole"
        class="mb-2 border-l-4 border-out bg-act-wash px-4 py-2"
        aria-label="To be agreed anew"
      >
        <p class="font-bold text-out">{{ one.words }}</p>
        <p class="text-sm">A message to send: “{{ one.message }}”</p>
      </section>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-x-6 lg:grid-cols-[minmax(0,1fr)_372px]">
        <div class="min-w-0">
          <header class="flex flex-wrap items-baseline gap-x-4">
            <h1 class="text-xl">Will it clean up?</h1>
            <p class="ml-auto text-sm text-ink-soft">
              {{ unit }} on the diameter over standard, {{ lengthText(view.hone_stock_m / 2, unit) }} a side
              for the hone included
            </p>
          </header>
          <div class="relative overflow-x-auto">
            <LadderChart
              v-for="row in rows"
              :key="row.map((one) => one.hole).join()"
              class="sm:min-w-[40rem]"
              :view="view"
              :holes="row"
              :chosen="chosen"
              :wordless="phone"
              @choose="choose"
            />
            <WallSteps v-if="phone" :view="view" />
          </div>
          <PlanOfWork v-if="view.plan.length" :plan="view.plan" />
        </div>
        <aside v-if="hole" class="lg:border-l lg:border-rule lg:pl-5">
          <h2 class="text-lg font-bold">
            Bore {{ hole.hole }}
            <span v-if="state && look" :class="NUMBER_TONE[state]"
              >{{ state === 'in' ? 'clears' : state === 'out' ? 'does not clear' : 'cannot tell' }} at +{{
                look.typed
              }}</span
            >
          </h2>
          <p v-if="hole.why_not" class="text-sm text-ink-soft">{{ hole.why_not }}</p>
          <WallSection :view="view" :hole="hole" />
          <div class="mt-1 flex flex-wrap gap-x-4 text-sm">
            <RouterLink class="link" :to="{ name: 'wall', params: { hole: String(hole.hole) } }"
              >Its wall</RouterLink
            >
            <RouterLink class="link ml-4" :to="{ name: 'boring', params: { hole: String(hole.hole) } }"
              >Bore it</RouterLink
            >
            <RouterLink class="link" :to="{ name: 'honing', params: { hole: String(hole.hole) } }"
              >Hone it</RouterLink
            >
            <RouterLink class="link" :to="{ name: 'pistons' }">Pistons</RouterLink>
            <RouterLink class="link" :to="{ name: 'plate' }">Plate and caps</RouterLink>
            <RouterLink class="link" :to="{ name: 'mains' }">Mains</RouterLink>
            <RouterLink class="link" :to="{ name: 'deck' }">Deck</RouterLink>
            <RouterLink class="link" :to="{ name: 'adds-up', query: { of: 'bores' } }"
              >What shaped them</RouterLink
            >
            <span v-if="hole.best && hole.best.move_m > 0"
              >centre moved <b class="num">{{ lengthText(hole.best.move_m, unit) }}</b></span
            >
            <span v-if="hole.wall_now"
              >wall now
              <b class="num">{{
                lengthText(hole.wall_now.left_m, unit === 'thou' ? 'inch' : 'mm', {
                  digits: unit === 'thou' ? 3 : 2,
                })
              }}</b>
              {{ hole.wall_by_drawing ? 'by drawing' : 'as read' }}</span
            >
          </div>
          <p v-for="doubt in hole.doubts" :key="doubt" class="caution mt-1">{{ doubt }}</p>
          <section class="mt-3 rounded bg-plate p-4 text-plate-text" aria-label="What this block needs">
            <p class="text-sm text-plate-soft">What this block needs</p>
            <p class="text-lg leading-snug font-bold">{{ view.headline }}</p>
            <p class="mt-1 text-sm leading-snug text-plate-soft">{{ view.words.join(' ') }}</p>
            <button
              type="button"
              class="act mt-2"
              :aria-expanded="isDeciding"
              @click="isDeciding = !isDeciding"
            >
              Decide bore {{ hole.hole }}
            </button>
          </section>
          <p v-if="decided" class="mt-2 border-l-4 border-in py-1 pl-3 text-sm">
            <b>Decided:</b> {{ decided }}
          </p>
          <p v-if="hole.decision?.concession" class="caution mt-1">
            Accepted below book: {{ hole.decision.concession }}. Not for {{ hole.decision.use_limit }}.
          </p>
          <LookForm
            v-if="hole.decision?.choice === 'bore to a step' && !hole.look"
            :key="hole.hole"
            class="mt-2"
            :now="now"
            :hole="hole"
            :job-id="job.jobId"
          />
          <p v-if="hole.look" class="mt-2 text-sm">
            Seen by {{ hole.look.looked_by }}: <b>{{ hole.look.outcome }}</b> {{ hole.look.words }}
          </p>
          <p v-for="line in view.cautions" :key="line" class="caution mt-2">{{ line }}</p>
        </aside>
      </div>
      <section v-if="hole" class="mt-3 grid gap-3 border-t border-rule pt-2">
        <DecideForm
          v-if="isDeciding"
          :key="hole.hole"
          :now="now"
          :view="view"
          :hole="hole"
          :option="option"
          :job-id="job.jobId"
          @done="isDeciding = false"
        />
        <OptionsTable v-if="hole.options.length" :hole="hole" @choose="take" />
        <CentresPanel :job-id="job.jobId" :invented="job.block.value?.job.invented ?? false" />
      </section>
    </template>
  </main>
</template>
