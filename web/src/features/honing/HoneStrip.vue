<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '@/api/ask'
import { type HoneView, type SurveyView, takeTemperature } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { newId } from '@/shared/newId'
import { personId, unit } from '@/shared/state/preferences'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import { useForm } from '@/shared/ui/useForm'

/** The sum behind the size, how large it reads as warm as it is, and what a round size would leave. */
const props = defineProps<{ view: HoneView; survey: SurveyView | null; jobId: string }>()
const emit = defineEmits<{ changed: [] }>()
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const small = (metres: number) => lengthText(metres, unit.value)
const target = computed(() => props.view.target)
const isPiston = computed(() => props.view.aim === 'piston')
const terms = computed(() => {
  const t = target.value
  if (!t) return []
  return [
    {
      sign: '',
      value: size(t.part_size.value_m),
      unit: SIZE_WITH[unit.value],
      what: `${t.part}, ${isPiston.value ? 'skirt' : 'outside'}, at 20 °C`,
    },
    {
      sign: t.more_m < 0 ? '−' : '+',
      value: small(Math.abs(t.more_m)),
      unit: unit.value,
      what: isPiston.value ? 'clearance wanted, cold' : 'press wanted',
    },
    {
      sign: '=',
      value: size(t.finished.value_m),
      unit: SIZE_WITH[unit.value],
      what: `bore ${props.view.hole} at 20 °C${props.view.clamped ? ', plate on' : ''}`,
    },
  ]
})
const warmth = computed(() => props.survey?.warmth ?? null)
/** Less than this moves nothing that a shop gauge shows. [m] */
const FELT_M = 1e-6
const reads = computed(() => warmth.value?.effect_m ?? null)
const soak = computed(() => {
  const seconds = warmth.value?.soak_s
  if (seconds == null) return ''
  return seconds === 0 ? '' : `as the room in ${Math.ceil(seconds / 60)} min`
})
const celsius = ref('')
const { refusal, busy, send, answer } = useForm()
const take = (confirmed = false): Promise<void> =>
  send(async () => {
    const body = {
      temperature_id: newId(),
      body: 'part' as const,
      part: props.survey?.has_own_temperature ? props.survey.part.key : '',
      text: celsius.value,
      confirmed,
      person_id: personId.value,
    }
    await ask(takeTemperature({ path: { job_id: props.jobId }, body }))
    celsius.value = ''
    emit('changed')
  })
</script>

<template>
  <section
    class="flex flex-wrap items-start gap-x-4 gap-y-1 border-b border-rule px-4 py-2"
    aria-label="The size"
  >
    <div v-for="(one, at) in terms" :key="one.what" class="flex gap-3" :class="at < 2 && 'max-sm:hidden'">
      <span class="pt-1 text-2xl text-ink-soft max-sm:hidden">{{ one.sign }}</span>
      <p>
        <b class="num text-2xl">{{ one.value }}</b> <span class="text-sm text-ink-soft">{{ one.unit }}</span>
        <span class="block text-sm text-ink-soft">{{ one.what }}</span>
      </p>
    </div>
    <div class="flex min-w-0 flex-wrap items-start gap-x-3 gap-y-1 border-l border-rule pl-4">
      <p v-if="reads !== null">
        <b class="num text-2xl" :class="Math.abs(reads) > FELT_M ? 'text-unsure' : ''">{{
          lengthText(reads, unit, { signed: true })
        }}</b>
        <span class="ml-1 text-sm text-ink-soft">{{ unit }}</span>
        <span class="block text-sm text-ink-soft"
          >reads so now, bore at {{ Number(warmth?.part_c).toFixed(1) }} °C<template v-if="soak"
            >, {{ soak }}</template
          ></span
        >
      </p>
      <p v-else class="max-w-56 text-sm text-unsure">
        Nobody took how warm the bore is: a warm bore reads large.
      </p>
      <form class="flex items-end gap-1" @submit.prevent="take()">
        <label class="text-sm text-ink-soft"
          >bore now
          <input
            v-model="celsius"
            class="num block h-9 w-20 rounded border border-rule bg-sheet px-2 text-ink"
            autocomplete="off"
            maxlength="12"
            placeholder="°C"
        /></label>
        <button type="submit" class="quiet" :disabled="busy || celsius.trim() === ''">Take</button>
      </form>
    </div>
    <p v-if="target?.piston?.near" class="border-l border-rule pl-4 max-sm:hidden">
      <b :class="target.piston.near.is_inside ? '' : 'text-out'"
        >the round {{ size(target.piston.near.size_m) }}</b
      >
      <span class="block text-sm text-ink-soft"
        >would leave {{ small(target.piston.near.leaves.value_m) }}, not {{ small(target.more_m) }}</span
      >
    </p>
    <RefusalChoices
      :refusal="refusal"
      class="w-full"
      @answer="(one) => answer(one, (_path, text) => (celsius = text), take)"
    />
  </section>
</template>
