<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { moveOrder, type OrderMoveKind, type OrderView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { personId, unit } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import DateField from '@/shared/ui/DateField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** One order as it stands, and what becomes of it: a day that was said, in, measured against what was ordered, back. */
const props = defineProps<{ one: OrderView }>()
const emit = defineEmits<{ moved: [] }>()
const job = useJob()
const open = ref(false)
const draft = ref({ kind: '', due: '', measured: '', words: '', paid: '' })
const kinds = computed(() =>
  props.one.can_be
    .filter((kind) => kind !== 'measured' || props.one.wanted_m !== null)
    .map((kind) => ({ value: kind, label: kind })),
)
const kind = computed(
  () =>
    draft.value.kind || (kinds.value.find((one) => one.value === 'in')?.value ?? kinds.value[0]?.value ?? ''),
)
const tone = computed(() => {
  if (props.one.state === 'late' || props.one.state === 'in, not as ordered') return 'text-out'
  return props.one.is_awaited ? 'text-unsure' : 'text-in'
})
const off = computed(() =>
  props.one.off_m === null
    ? ''
    : `${lengthText(props.one.off_m, unit.value, { signed: true })} ${unit.value} from what was ordered`,
)
const { refusal, busy, send, answer } = useForm()
const save = (confirmed = false) =>
  send(async () => {
    await ask(
      moveOrder({
        path: { job_id: job.jobId, order_id: props.one.order_id },
        body: {
          kind: kind.value as OrderMoveKind,
          due: draft.value.due || null,
          measured: draft.value.measured,
          words: draft.value.words,
          paid: draft.value.paid.trim().replace(',', '.') || null,
          confirmed,
          person_id: personId.value,
        },
      }),
    )
    draft.value = { kind: '', due: '', measured: '', words: '', paid: '' }
    open.value = false
    emit('moved')
  })
</script>

<template>
  <article class="border-b border-rule py-2" :aria-label="one.what">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <b>{{ one.count > 1 ? `${one.count} × ` : '' }}{{ one.what }}</b>
      <span class="text-ink-soft">{{ one.kind }}{{ one.whom ? `, ${one.whom}` : '' }}</span>
      <span class="ml-auto font-bold" :class="tone"
        >{{ one.state
        }}<template v-if="one.due && one.is_awaited"
          >, {{ one.kind === 'loan' ? 'back by' : 'due' }} {{ one.due }}</template
        ></span
      >
      <button type="button" class="link" :aria-expanded="open" @click="open = !open">
        what became of it
      </button>
    </div>
    <p v-if="one.words || off" class="text-sm text-ink-soft">
      {{ one.words }} <b v-if="off" :class="tone">{{ off }}</b>
    </p>
    <p v-if="one.due !== one.first_due && one.first_due" class="text-sm text-unsure">
      first said {{ one.first_due }}
    </p>
    <form
      v-if="open"
      class="mt-2 grid gap-3 sm:grid-cols-3"
      :aria-label="`What became of ${one.what}`"
      @submit.prevent="save()"
    >
      <ChoiceField
        :model-value="kind"
        label="It is"
        :choices="kinds"
        path="kind"
        @update:model-value="(to) => (draft.kind = to)"
      />
      <DateField v-if="kind === 'said to come'" v-model="draft.due" label="On" path="due" />
      <TextField
        v-if="kind === 'measured'"
        v-model="draft.measured"
        label="Measured (bare: mm)"
        path="measured"
        bare="mm"
      />
      <TextField v-if="kind === 'in'" v-model="draft.paid" label="Paid" path="paid" />
      <TextField v-model="draft.words" label="In words" path="words" />
      <button type="submit" class="act justify-self-start self-end" :disabled="busy">Write it down</button>
      <RefusalChoices
        v-if="refusal"
        class="sm:col-span-3"
        :refusal="refusal"
        @answer="
          (said) =>
            answer(
              said,
              (path, text) => Object.assign(draft, { [path]: text }),
              (sure) => save(sure),
            )
        "
      />
    </form>
  </article>
</template>
