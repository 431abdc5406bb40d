<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { type CardSummary, type ChangedState, chooseCard, listCards } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import StateChanges from '@/shared/ui/StateChanges.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** Judging the job by another card: what would change first, and a reason where it is of another engine. */
const job = useJob()
const emit = defineEmits<{ chosen: [] }>()
const { refusal, busy, send } = useForm()
const cards = useLoaded(() => ask(listCards()))
const chosen = ref('')
const reason = ref('')
const changes = ref<ChangedState[] | null>(null)
const others = computed(() =>
  (cards.data.value ?? []).filter(
    (one) => one.version.spec_card_id !== job.block.value?.card.version.spec_card_id,
  ),
)
const choices = computed(() => [
  { value: '', label: 'choose a card' },
  ...others.value.map((one: CardSummary) => ({
    value: one.version.spec_card_version_id,
    label: `${one.name} · ${one.engine}`,
  })),
])
/** Where the application asks for the reason, its field appears and stays. */
const isBorrowed = ref(false)
watch(refusal, (now) => (isBorrowed.value ||= now?.problems.some((one) => one.field === 'reason') ?? false))

function choose(onlyPreview: boolean): Promise<void> {
  return send(async () => {
    const body = {
      spec_card_version_id: chosen.value,
      person_id: personId.value,
      only_preview: onlyPreview,
      reason: reason.value,
    }
    changes.value = await ask(chooseCard({ path: { job_id: job.jobId }, body }))
    if (onlyPreview) return
    await job.reload()
    emit('chosen')
  })
}
</script>

<template>
  <details v-if="others.length" class="mt-4">
    <summary class="cursor-pointer">Judge it by another card</summary>
    <div class="mt-2 grid gap-2">
      <ChoiceField
        v-model="chosen"
        label="Card"
        :choices="choices"
        path="spec_card_version_id"
        @update:model-value="changes = null"
      />
      <p v-if="chosen" class="caution">
        Limits hold for the engine they are written for, not for a sibling of the same maker.
      </p>
      <TextField v-if="isBorrowed" v-model="reason" label="Why all the same" path="reason" />
      <button type="button" class="quiet min-h-11" :disabled="!chosen || busy" @click="choose(true)">
        What would change?
      </button>
      <template v-if="changes">
        <StateChanges :changes="changes" />
        <button type="button" class="act" :disabled="busy" @click="choose(false)">
          Judge this job by that card
        </button>
      </template>
      <RefusalNote v-if="!refusal?.problems.length" :refusal="refusal" />
    </div>
  </details>
</template>
