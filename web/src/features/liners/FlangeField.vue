<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { onMounted, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type LandThickness, readBudgets, takeReading } from '@/api/generated'
import { newId } from '@/shared/newId'
import { bareUnit } from '@/shared/format/bareUnit'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { ownChange, refresh } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'
import { useJobUndo } from '@/shared/state/useUndo'
import BareHint from '@/shared/ui/BareHint.vue'
import BudgetButton from '@/shared/ui/BudgetButton.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'

/** Thickness of one flange at one land: what is known, and a field to read it into. */
const props = defineProps<{ mark: string; land: string; flange: LandThickness | null; wanted: boolean }>()
const digits = useGaugeDigits()
const job = useJob()
const undo = useJobUndo()
const draft = useLocalStorage(`vallo-flange-${job.jobId}-${props.mark}-${props.land}`, { text: '', id: '' })
const refusal = ref<Refusal | null>(null)
const input = ref<HTMLInputElement | null>(null)

const budgets = () =>
  ask(
    readBudgets({
      path: { job_id: job.jobId, quantity: 'flange thickness', part: `liner-${props.mark}` },
      query: { land: props.land },
    }),
  )

onMounted(() => {
  if (props.wanted) input.value?.focus()
})

function type(text: string): void {
  draft.value = { text, id: newId() }
  refusal.value = null
}

async function take(
  as: { text?: string; confirmed?: boolean; readBefore?: 'repeat' | 'correct' | 'new pass' } = {},
): Promise<void> {
  if (draft.value.text.trim() === '') return
  try {
    const taken = await ownChange(job.jobId, () =>
      ask(
        takeReading({
          path: { job_id: job.jobId },
          body: {
            reading_id: draft.value.id,
            quantity: 'flange thickness',
            liner_mark: props.mark,
            land: props.land,
            text: as.text || draft.value.text,
            bare_unit: bareUnit('flange thickness', unit.value),
            confirmed: as.confirmed ?? false,
            read_before: as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : '',
            new_pass: as.readBefore === 'new pass',
            person_id: personId.value,
          },
        }),
      ),
    )
    undo.took(taken.event)
    type('')
    await refresh(job.jobId)
  } catch (error) {
    undo.took(null)
    refusal.value = asRefusal(error)
  }
}
</script>

<template>
  <form class="flex flex-wrap items-center gap-x-3 gap-y-1" @submit.prevent="take()">
    <span v-if="flange?.thickness_m" class="num min-w-32 font-bold">
      {{ lengthText(flange.thickness_m, SIZE_WITH[unit], { digits: digits.size('flange thickness') }) }}
      <span class="font-normal">
        <BudgetButton
          :expanded="flange.expanded_m ?? 0"
          :title="`How far the flange of ${mark} is known`"
          what="mean"
          :fetch="budgets"
        />
      </span>
    </span>
    <span v-else class="min-w-32 text-sm text-ink-soft">not measured</span>
    <input
      ref="input"
      :value="draft.text"
      type="text"
      autocomplete="off"
      maxlength="60"
      class="num min-h-10 w-28 border border-ink-soft bg-sheet px-2"
      :aria-label="`Flange of ${mark} at the ${land}`"
      placeholder="read it"
      @input="type(($event.target as HTMLInputElement).value)"
    />
    <BareHint
      v-if="draft.text"
      :text="draft.text"
      quantity="flange thickness"
      :bare="bareUnit('flange thickness', unit)"
    />
    <RefusalChoices
      class="w-full text-sm"
      :refusal="refusal"
      @answer="(one) => take({ text: one.text, confirmed: one.confirm })"
      @read-before="(what) => take({ readBefore: what })"
    />
  </form>
</template>
