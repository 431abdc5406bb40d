<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type DerivedView, readBudgets, type SurveyView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { digitsFor, lengthText, SIZE_WITH, sizeText, smallText, withinText } from '@/shared/format/lengths'
import { settleWords } from '@/shared/format/settle'
import { unit } from '@/shared/state/preferences'
import BudgetButton from '@/shared/ui/BudgetButton.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import { STATE_TONE } from '@/shared/format/tones'

import SurveyWhy from './SurveyWhy.vue'

/** What the readings say so far: size, form, what they cannot see, what would settle them. */
const props = defineProps<{ survey: SurveyView; jobId: string }>()
const form = computed(() => props.survey.form)
const shown = computed(() => ({
  digits: digitsFor(Number(props.survey.setup?.gauge.resolution_um ?? 0) / 1e6, SIZE_WITH[unit.value]),
}))
const stateOf = (kind: string) => props.survey.rules.find((one) => one.kind === kind)?.state
const title = computed(() => `How far the ${props.survey.quantity} can be trusted`)

const name = (one: DerivedView) => (one.kind === 'barrel' && one.value_m < 0 ? 'waist' : one.kind)
const size = (one: DerivedView) => smallText(Math.abs(one.value_m), null, unit.value, { signed: false })
function aside(one: DerivedView): string {
  const said = one.where ? [`at ${one.where}`] : []
  if (one.kind === 'flatness') said.push('about the plane of the grid')
  if (one.kind === 'taper end to end') said.push(`larger at the ${one.value_m < 0 ? 'bottom' : 'top'}`)
  if (one.direction_deg !== null) {
    said.push(`towards ${Math.round(one.direction_deg)}° ±${Math.ceil(one.within_deg ?? 0)}°`)
  } else if (one.kind === 'ovality' || one.kind === 'high to low') {
    said.push('no direction to be told from scatter')
  }
  return said.join(', ')
}
const budgets = () =>
  ask(
    readBudgets({
      path: { job_id: props.jobId, quantity: props.survey.quantity, part: props.survey.part.key },
    }),
  )
</script>

<template>
  <div class="grid gap-2">
    <p class="flex items-center gap-2 text-lg" :class="STATE_TONE[survey.part.state]">
      <StateGate :state="survey.part.state" class="shrink-0" />
      <span
        ><b>{{ survey.part.state === 'in' && survey.rules.length === 0 ? 'read' : survey.part.state }}</b
        >: {{ survey.part.reason }} <SurveyWhy :survey="survey" :job-id="jobId"
      /></span>
    </p>
    <dl class="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-0.5">
      <template v-if="form && survey.is_size && !survey.relative">
        <dt class="text-ink-soft">{{ survey.at_20c ? 'at 20 °C' : 'as read' }}</dt>
        <dd>
          <span class="num">{{ lengthText(form.least_m, SIZE_WITH[unit], shown) }}</span> to
          <span class="num">{{ sizeText(form.greatest_m, unit, null, shown) }}</span>
        </dd>
      </template>
      <template v-for="one in survey.told" :key="one.kind">
        <dt class="text-ink-soft">{{ name(one) }}</dt>
        <dd>
          <span class="num">{{ size(one) }}</span>{{ ' '
          }}<BudgetButton :expanded="one.expanded_m" :title="title" :what="one.what" :fetch="budgets" />
          {{ aside(one) }}
          <template v-if="one.per_side_m !== null"
            >· <span class="num">{{ smallText(one.per_side_m, null, unit, { signed: false }) }}</span> per
            side</template
          >
          <StateGate v-if="stateOf(one.kind)" :state="stateOf(one.kind)!" class="ml-2 inline align-[-2px]" />
        </dd>
      </template>
      <template v-if="survey.expanded_m !== null">
        <dt class="text-ink-soft">one reading</dt>
        <dd>
          <BudgetButton
            :expanded="survey.expanded_m"
            :title="title"
            :what="`one reading of the ${survey.quantity}`"
            :fetch="budgets"
          />
          <template v-if="survey.with_thermometer_m !== null"
            >; a thermometer on part and master would make it
            <span class="num">{{ withinText(survey.with_thermometer_m, unit) }}</span></template
          >
        </dd>
      </template>
    </dl>
    <p v-for="one in survey.interference" :key="one.liner_mark">
      <b>{{ one.liner_mark }}</b> would press by
      <template v-for="(at, index) in one.levels" :key="at.depth_m"
        >{{ index ? ', ' : ''
        }}<span class="num">{{ lengthText(at.interference_m, unit, { signed: true }) }}</span
        >{{ ' '
        }}<BudgetButton
          :expanded="at.expanded_m"
          :title="title"
          :what="`interference with ${one.liner_mark}, ${at.name}`"
          :fetch="budgets"
        />
        {{ at.name }}</template
      >, diametral.<template v-if="one.left_out.length">
        Not told at {{ one.left_out.join(', ') }}: the liner was not read there.</template
      ><b v-if="one.doubtful" class="text-unsure"> Doubtful: the zero was found moved after it was read.</b>
    </p>
    <p v-for="phrase in survey.cross_checks" :key="phrase.text"><PhraseText :phrase="phrase" /></p>
    <div v-if="survey.settling.length">
      <h2 class="text-sm text-ink-soft">What would settle it</h2>
      <ul>
        <li v-for="one in survey.settling.slice(0, 3)" :key="one.rule + one.where">{{ settleWords(one) }}</li>
      </ul>
    </div>
    <details v-if="survey.pattern.blind.length">
      <summary class="min-h-8 cursor-pointer">What this pattern cannot see</summary>
      <ul class="list-disc pl-5 text-sm">
        <li v-for="words in survey.pattern.blind" :key="words">{{ words }}</li>
      </ul>
    </details>
  </div>
</template>
