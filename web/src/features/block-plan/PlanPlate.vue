<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BlockPlansView, BlockPlanView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { whenText } from '@/shared/format/time'
import { person } from '@/shared/state/people'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { useForm } from '@/shared/ui/useForm'

import type { BlockPlanNow } from './useBlockPlan'

/** What this block needs: the plan to choose, or the hole to start with. */
const props = defineProps<{
  now: BlockPlanNow
  plans: BlockPlansView
  plan: BlockPlanView
  jobId: string
  tried: boolean
}>()
const { refusal, busy, send } = useForm()
const datum = ref<'deck' | 'touch-off'>(props.plans.chosen?.datum === 'touch-off' ? 'touch-off' : 'deck')
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
const isChosen = computed(() => !props.tried && props.plans.chosen?.rule === props.plan.rule)
const first = computed(() => {
  const hole = isChosen.value ? props.plans.chosen?.next_hole : props.plan.order[0]
  return props.plan.holes.find((one) => one.hole === hole) ?? null
})
const rest = computed(() =>
  props.plan.order
    .filter((hole) => hole !== first.value?.hole)
    .flatMap((hole) => {
      const cut = props.plan.holes.find((one) => one.hole === hole)?.cut
      return cut ? [`hole ${hole} to ${size(cut.depth_m)} on ${size(cut.shim_m)}`] : []
    }),
)
const least = computed(() => {
  const left = props.plan.holes.flatMap((one) => (one.cut?.ledge_left_m ? [one.cut.ledge_left_m] : []))
  return left.length ? Math.min(...left) : null
})
/** The depth by the datum that was declared, the other beside it. */
const depth = computed(() => {
  const cut = first.value?.cut
  if (!cut) return null
  const byDeck = `${size(cut.depth_m)} from the deck`
  const byTouch = `${size(cut.from_touch_off_m)} from touch-off on the high spot`
  return datum.value === 'deck' ? { is: byDeck, or: byTouch } : { is: byTouch, or: byDeck }
})
const choose = () => send(() => props.now.choose(props.plan.rule, datum.value))
</script>

<template>
  <aside class="grid content-start gap-2 bg-plate p-5 text-plate-text" aria-label="What this block needs">
    <p class="text-sm text-plate-soft">What this block needs</p>
    <template v-if="first?.cut && depth">
      <h2 class="text-2xl leading-snug">
        Cut hole {{ first.hole }} to {{ depth.is }}, on a {{ size(first.cut.shim_m) }} shim
      </h2>
      <p class="leading-snug text-plate-soft">
        That is {{ depth.or }}. Counted from the deepest spot instead it would stand
        {{ lengthText(first.cut.other_datum_m, unit) }} {{ unit }} proud.
        <template v-if="rest.length">Then {{ rest.join(', then ') }}. </template>
        <template v-if="least !== null">Least ledge left {{ size(least) }}</template
        ><template v-if="least !== null && plans.ledge_least_m !== null"
          >, allowed {{ size(plans.ledge_least_m) }}</template
        ><template v-if="least !== null">.</template>
      </p>
    </template>
    <h2 v-else class="text-xl">
      {{ plan.order.length ? 'Every hole of this plan is cut.' : 'This rule cuts nothing.' }}
    </h2>
    <fieldset class="flex flex-wrap items-center gap-x-5">
      <legend class="sr-only">Depths are counted from</legend>
      <span class="text-plate-soft">counted from</span>
      <label
        v-for="face in ['deck', 'touch-off'] as const"
        :key="face"
        class="flex min-h-11 items-center gap-2"
      >
        <input v-model="datum" type="radio" name="datum" :value="face" class="size-4" />
        {{ face === 'deck' ? 'the deck' : 'touch-off' }}
      </label>
    </fieldset>
    <div class="flex flex-wrap items-center gap-4">
      <RouterLink
        v-if="isChosen && first && datum === plans.chosen?.datum"
        class="act inline-flex items-center"
        :to="{ name: 'cut-run', params: { job: jobId, hole: first.hole } }"
        >Start with hole {{ first.hole }}</RouterLink
      >
      <button v-else type="button" class="act" :disabled="busy || plan.order.length === 0" @click="choose">
        Choose this plan as {{ person?.name ?? 'nobody yet' }}
      </button>
    </div>
    <p class="text-sm text-plate-soft">
      The stop is taken as good to ±{{ lengthText(plans.trust.stop_accuracy_m, unit) }} {{ unit }}, a
      graduation as {{ lengthText(plans.trust.graduation_m, unit, { digits: unit === 'µm' ? 1 : 2 }) }}
      {{ unit }}: {{ plans.trust.basis }}.
    </p>
    <p v-if="plans.chosen" class="text-sm text-plate-soft">
      Plan {{ plans.chosen.version }}, “{{ plans.chosen.rule }}”, counted from the {{ plans.chosen.datum }},
      chosen by {{ plans.chosen.chosen_by }} {{ whenText(plans.chosen.chosen_at) }}.
    </p>
    <ul
      v-if="plans.chosen?.differences.length"
      class="text-sm text-plate-act"
      aria-label="What is different now"
    >
      <li v-for="line in plans.chosen.differences" :key="line">Worked out anew, {{ line }}.</li>
    </ul>
    <RefusalNote :refusal="refusal" />
  </aside>
</template>
