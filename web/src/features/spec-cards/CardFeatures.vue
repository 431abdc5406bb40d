<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import { type FeatureSheet, type PlanBody, proposePlan, type Quantity } from '@/api/generated'
import { catalogue, featureOf } from '@/shared/state/catalogue'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import { emptySheet, lengthsText, useCard } from './cardDraft'
import FeatureRow from './FeatureRow.vue'

/** Features that the card has measured place by place: limits, levels and axes, with a plan proposed for each. */
const draft = useCard()
const quantities = computed(() =>
  catalogue.value.filter((one) => one.limits.length > 0).map((one) => one.quantity),
)
const features = computed(() => draft.value.features)
const left = computed(() =>
  quantities.value.filter((one) => !features.value.some((row) => row.sheet.quantity === one)),
)
const added = ref<string>('')
const choices = computed(() => [
  { value: '', label: 'choose' },
  ...left.value.map((one) => ({ value: one, label: one })),
])
const risk = ref<'usual' | 'raised'>('usual')
const blind = ref<{ quantity: string; words: string[] } | null>(null)
/** Not a form of its own: what is wrong at the fields of the card is said by the card. */
const refusal = ref<Refusal | null>(null)

function add(): void {
  if (!added.value) return
  features.value.push(emptySheet(added.value as Quantity))
  added.value = ''
}

/** Levels and axes that suit the kind of cylinder; what the pattern cannot see is said at once. */
async function propose(index: number): Promise<void> {
  try {
    const row = features.value[index]
    if (!row) return
    const { card } = draft.value
    const length =
      features.value.find((one) => featureOf(one.sheet.quantity)?.asks_liner)?.sheet.nominal?.length?.typed ??
      ''
    const body: PlanBody = {
      quantity: row.sheet.quantity,
      construction: card.construction,
      unit: card.unit,
      bore: card.layout.bore.typed,
      bore_pitch: card.layout.bore_pitch.typed,
      liner_length: length,
      in_row: Math.max(1, Math.min(16, Number(card.layout.holes) || 1)),
      risk: risk.value,
    }
    const plan = await ask(proposePlan({ body }))
    row.levels = plan.levels.map((level) => `${level.name} ${level.typed}`).join(', ')
    row.axes = plan.axes_deg.join(' ')
    row.along = lengthsText(plan.along.map((typed) => ({ typed })))
    row.across = lengthsText(plan.across.map((typed) => ({ typed })))
    blind.value = { quantity: row.sheet.quantity, words: plan.blind }
    refusal.value = null
  } catch (error) {
    refusal.value = asRefusal(error)
  }
}
const isSheet = (sheet: FeatureSheet) => sheet.quantity === blind.value?.quantity
</script>

<template>
  <fieldset class="grid gap-2" aria-label="Features">
    <legend class="text-lg font-bold">Bores, liners, pistons, mains and deck</legend>
    <p class="text-sm text-ink-soft">
      Sizes in {{ draft.card.unit }}, differences in {{ draft.card.unit === 'mm' ? 'mm' : 'thou' }},
      diametral. Levels with their depth below the deck; axes clockwise from the front, 0 along the crank and
      90 across it.
    </p>
    <RefusalNote :refusal="refusal" />
    <div class="flex flex-wrap items-end gap-4">
      <div class="w-44">
        <TextField v-model="draft.card.main_bores as number" label="Main bores" path="main_bores" whole />
      </div>
      <label class="text-sm text-ink-soft"
        >Plans for
        <select v-model="risk" class="field">
          <option value="usual">the usual risk</option>
          <option value="raised">a raised risk: more levels and axes</option>
        </select>
      </label>
    </div>
    <div v-for="(row, index) in features" :key="row.sheet.quantity" class="border-t border-rule pt-2">
      <FeatureRow
        v-model:row="features[index]!"
        :index="index"
        @propose="propose(index)"
        @remove="features.splice(index, 1)"
      />
      <ul v-if="blind && isSheet(row.sheet)" class="list-disc pl-5 text-sm text-unsure">
        <li v-for="words in blind.words" :key="words">{{ words }}</li>
      </ul>
    </div>
    <div class="flex items-end gap-3">
      <div class="w-60"><ChoiceField v-model="added" label="One more feature" :choices="choices" /></div>
      <button type="button" class="quiet min-h-10" :disabled="!added" @click="add">Add it</button>
    </div>
  </fieldset>
</template>
