<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { PlanRule } from '@/api/generated'
import { rowsOf } from '@/shared/charts/rows'
import { useJob } from '@/shared/state/job'
import { usePhone } from '@/shared/state/useNarrow'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import BlockSection from './BlockSection.vue'
import OrderLine from './OrderLine.vue'
import PlanPlate from './PlanPlate.vue'
import RuleTable from './RuleTable.vue'
import { sectionScale } from './section'
import { useBlockPlan } from './useBlockPlan'
import WishList from './WishList.vue'

/** One plan for all holes: three rules side by side, drawn for the one that is looked at. */
const job = useJob()
const now = useBlockPlan(job)
const { plans, missing, draft, wishes } = now
const rule = ref<PlanRule>('best')
let looked = false
watch(
  () => plans.value?.chosen?.version,
  () => {
    if (plans.value?.chosen && !looked) rule.value = plans.value.chosen.rule
    looked = plans.value !== null
  },
)
const plan = computed(() => plans.value?.plans.find((one) => one.rule === rule.value) ?? null)
const phone = usePhone()
const rows = computed(() => rowsOf(job.block.value?.card.banks ?? [], phone.value ? 2 : 8))
const holes = computed(() => job.block.value?.holes.map((one) => one.number) ?? [])
const factor = computed(() =>
  plan.value ? sectionScale(plan.value, plans.value?.greatest_m ?? null).factor : 1,
)
</script>

<template>
  <main class="flex-1 px-5 py-2">
    <RefusalNote v-if="!plans" :refusal="missing" />
    <p v-if="!plans && !missing" class="py-6 text-ink-soft" aria-busy="true">The plan is being worked out.</p>
    <template v-if="plans && job.block.value">
      <div class="flex flex-wrap items-baseline gap-x-5">
        <RouterLink :to="{ name: 'home', params: { job: job.jobId } }" class="link text-sm">Block</RouterLink>
        <h1 class="text-xl">Cut plan of the block</h1>
        <RouterLink :to="{ name: 'matching', params: { job: job.jobId } }" class="link"
          >Who goes where</RouterLink
        >
        <RouterLink :to="{ name: 'adds-up', params: { job: job.jobId } }" class="link"
          >What does not add up</RouterLink
        >
        <p v-if="plan" class="text-ink-soft">
          drawn for <b class="text-ink">{{ plan.rule }}</b>: dashed is now, solid is after
        </p>
        <p v-if="plan" class="ml-auto text-sm text-ink-soft">
          along the crank · heights × {{ factor }} · green: least to greatest on a shim
        </p>
      </div>
      <p v-if="plans.why_not" class="py-6 text-lg">No cut can be planned: {{ plans.why_not }}</p>
      <template v-if="plan">
        <BlockSection
          v-for="row in rows"
          :key="row.join()"
          :plan="plan"
          :plans="plans"
          :row="row"
          :job-id="job.jobId"
        />
        <OrderLine :plan="plan" :plans="plans" />
        <div class="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
          <RuleTable v-model="rule" :plans="plans" />
          <PlanPlate
            :key="`${rule} ${plans.chosen?.version}`"
            :now="now"
            :plans="plans"
            :plan="plan"
            :job-id="job.jobId"
            :tried="draft.holes !== null || draft.undecided"
          />
        </div>
        <details class="mt-3" :open="draft.holes !== null || plans.wishes.length > 0">
          <summary class="min-h-11 cursor-pointer font-bold">
            Decided before: lock a hole, a shim, an aim
          </summary>
          <RefusalNote :refusal="missing" />
          <WishList v-model="wishes" :plans="plans" :holes="holes" @changed="now.tried()" />
          <label class="flex min-h-11 items-center gap-2">
            <input v-model="draft.undecided" type="checkbox" class="size-5" @change="now.tried()" />
            “only those outside” takes those that cannot be told as well
          </label>
          <button v-if="draft.holes !== null" type="button" class="quiet min-h-11" @click="now.forget()">
            Drop what I tried
          </button>
        </details>
      </template>
    </template>
  </main>
</template>
