<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { readBudgets, type SurveyView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { digitsFor, lengthText, SIZE_WITH, sizeText, smallText, withinText } from '@/shared/format/lengths'
import { settleWords } from '@/shared/format/settle'
import { unit } from '@/shared/state/preferences'
import BudgetDialog from '@/shared/ui/BudgetDialog.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'

/** What the readings say so far: size, form, what they cannot see, what would settle them. */
const props = defineProps<{ survey: SurveyView; jobId: string }>()
const open = ref(false)
const form = computed(() => props.survey.form)
const shown = computed(() => ({
  digits: digitsFor(Number(props.survey.setup?.gauge.resolution_um ?? 0) / 1e6, SIZE_WITH[unit.value]),
}))
const within = (rule: string) => props.survey.rules.find((one) => one.rule === rule)
const small = (metres: number) => smallText(metres, null, unit.value, { signed: false })
const TONE = {
  in: 'text-in',
  out: 'text-out',
  'cannot tell': 'text-unsure',
  'not measured': 'text-ink-soft',
} as const

/** The worst level, with how much of its oval the axes could have missed. */
const oval = computed(() => {
  const levels = (form.value?.levels ?? []).filter((one) => one.ovality_m !== null && one.share_seen !== null)
  const worst = levels.sort((a, b) => (b.ovality_m ?? 0) - (a.ovality_m ?? 0))[0]
  if (!worst || worst.ovality_m === null) return null
  const axis = Math.round(worst.ellipse_axis_deg ?? 0)
  return `${worst.name}: an ellipse of ${small(worst.ovality_m)}, large at ${axis}°; greatest less least shows ${Math.round((worst.share_seen ?? 0) * 100)} % of it`
})
const shapes = computed(() => {
  const now = form.value
  if (!now) return []
  const said: [string, string][] = []
  if (now.taper_of_mean_m !== null)
    said.push([
      'taper',
      `${small(Math.abs(now.taper_of_mean_m))}, ${now.taper_of_mean_m >= 0 ? 'larger at the top' : 'larger at the bottom'}`,
    ])
  if (now.barrel_m !== null)
    said.push([now.barrel_m >= 0 ? 'barrel' : 'waist', small(Math.abs(now.barrel_m))])
  if (now.bell_top_m !== null && now.bell_top_m > 0) said.push(['opens at the top', small(now.bell_top_m)])
  if (now.bell_bottom_m !== null && now.bell_bottom_m > 0)
    said.push(['opens at the bottom', small(now.bell_bottom_m)])
  return said
})
const budgets = () =>
  ask(
    readBudgets({
      path: { job_id: props.jobId, quantity: props.survey.quantity, part: props.survey.part.key },
    }),
  )
</script>

<template>
  <div class="grid gap-2">
    <p class="flex items-center gap-2 text-lg" :class="TONE[survey.part.state]">
      <StateGate :state="survey.part.state" class="shrink-0" />
      <span
        ><b>{{ survey.part.state === 'in' && survey.rules.length === 0 ? 'read' : survey.part.state }}</b
        >: {{ survey.part.reason }}</span
      >
    </p>
    <dl class="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-0.5">
      <template v-if="form && survey.is_size && !survey.relative">
        <dt class="text-ink-soft">{{ survey.at_20c ? 'at 20 °C' : 'as read' }}</dt>
        <dd>
          <span class="num">{{ lengthText(form.least_m, SIZE_WITH[unit], shown) }}</span> to
          <span class="num">{{ sizeText(form.greatest_m, unit, null, shown) }}</span>
        </dd>
      </template>
      <template v-if="form?.worst_out_of_round_m != null">
        <dt class="text-ink-soft">out of round</dt>
        <dd>
          <span class="num">{{ small(form.worst_out_of_round_m) }}</span> across,
          <span class="num">{{ small(form.worst_out_of_round_m / 2) }}</span> per side
          <StateGate
            v-if="within('out of round')"
            :state="within('out of round')!.state"
            class="inline align-[-2px]"
          />
        </dd>
      </template>
      <template v-for="[name, words] in shapes" :key="name">
        <dt class="text-ink-soft">{{ name }}</dt>
        <dd class="num whitespace-normal">{{ words }}</dd>
      </template>
      <template v-if="survey.flatness_m !== null">
        <dt class="text-ink-soft">flatness</dt>
        <dd>
          <span class="num">{{ small(survey.flatness_m) }}</span> about the plane of the grid
          <StateGate
            v-if="within('flatness')"
            :state="within('flatness')!.state"
            class="inline align-[-2px]"
          />
        </dd>
      </template>
      <template v-if="survey.expanded_m !== null">
        <dt class="text-ink-soft">one reading</dt>
        <dd>
          <button type="button" class="link num" title="Open the budget" @click="open = true">
            {{ withinText(survey.expanded_m, unit) }}
          </button>
        </dd>
      </template>
    </dl>
    <p v-for="one in survey.interference" :key="one.liner_mark">
      <b>{{ one.liner_mark }}</b> would press by
      <template v-for="(at, index) in one.levels" :key="at.depth_m"
        >{{ index ? ', ' : ''
        }}<span class="num">{{ lengthText(at.interference_m, unit, { signed: true }) }}</span>
        {{ at.name }}</template
      >; {{ withinText(one.expanded_m, unit) }}, diametral.<template v-if="one.left_out.length">
        Not told at {{ one.left_out.join(', ') }}: the liner was not read there.</template
      ><b v-if="one.doubtful" class="text-unsure"> Doubtful: the zero was found moved after it was read.</b>
    </p>
    <p v-for="phrase in survey.cross_checks" :key="phrase.text"><PhraseText :phrase="phrase" /></p>
    <p v-if="oval">{{ oval }}.</p>
    <div v-if="survey.settling.length">
      <h3 class="text-sm text-ink-soft">What would settle it</h3>
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
    <BudgetDialog
      :open="open"
      :title="`How far the ${survey.quantity} can be trusted`"
      :fetch="budgets"
      @close="open = false"
    />
  </div>
</template>
