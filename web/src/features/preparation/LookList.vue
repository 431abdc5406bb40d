<script setup lang="ts">
import { computed, ref } from 'vue'

import type { InspectionKind, InspectionOutcome, InspectionView, PreparationView } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { person } from '@/shared/state/people'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { PreparationNow } from './usePreparation'

/** What is looked at before metal is taken off: cracks, pressure, the corner of each ledge; or waived by name. */
const props = defineProps<{ now: PreparationNow; ready: PreparationView; holes: number[] }>()
const KINDS: { kind: InspectionKind; each: boolean }[] = [
  { kind: 'crack check of the ledge', each: true },
  { kind: 'crack check of the deck', each: false },
  { kind: 'pressure test', each: false },
  { kind: 'corner of the ledge', each: true },
]
const { refusal, busy, send, answer } = useForm()
const open = ref<InspectionKind | null>(null)
const draft = ref({ hole: '', words: '', radius: '', undercut: false })

const rows = computed(() =>
  KINDS.map((one) => ({ ...one, looks: props.ready.inspections.filter((look) => look.kind === one.kind) })),
)
const choices = computed(() => [
  { value: '', label: 'all holes' },
  ...props.holes.map((hole) => ({ value: String(hole), label: `hole ${hole}` })),
])
const said = (look: InspectionView) =>
  [look.hole === null ? '' : `hole ${look.hole}:`, look.outcome, look.typed, look.words]
    .filter(Boolean)
    .join(' ')
const TONE: Record<InspectionOutcome, string> = {
  sound: 'text-in',
  'not sound': 'text-out',
  waived: 'text-unsure',
}

function choose(kind: InspectionKind): void {
  open.value = open.value === kind ? null : kind
  draft.value = { hole: '', words: '', radius: '', undercut: false }
  refusal.value = null
}
function look(outcome: InspectionOutcome, confirmed = false): Promise<void> {
  return send(async () => {
    const kind = open.value
    if (kind === null) return
    const { hole, ...rest } = draft.value
    await props.now.look({ kind, outcome, hole: hole === '' ? null : Number(hole), ...rest, confirmed })
    open.value = null
  })
}
const put = (_path: string, text: string) => (draft.value.radius = text)
</script>

<template>
  <section aria-label="Looked at before it is cut">
    <h2 class="border-b border-ink text-lg">Before metal is taken off</h2>
    <div v-for="row in rows" :key="row.kind" class="border-b border-rule py-1">
      <div class="flex items-start gap-2">
        <div class="min-w-0 flex-1 py-1 leading-snug">
          <b>{{ row.kind }}</b>
          <p v-if="row.looks.length === 0" class="text-sm text-unsure">not looked at, not waived</p>
          <p
            v-for="one in row.looks"
            :key="one.event"
            class="text-sm"
            :class="TONE[one.outcome]"
            :title="`${one.noted_by}, ${whenText(one.noted_at)}`"
          >
            {{ said(one) }} <span class="text-ink-soft">{{ one.noted_by }}</span>
          </p>
        </div>
        <button
          type="button"
          class="quiet min-h-11"
          :aria-expanded="open === row.kind"
          @click="choose(row.kind)"
        >
          {{ open === row.kind ? 'Close' : row.looks.length ? 'Again' : 'Write down' }}
        </button>
      </div>
      <form v-if="open === row.kind" class="grid grid-cols-2 gap-2 pb-2" @submit.prevent="look('sound')">
        <ChoiceField v-if="row.each" v-model="draft.hole" label="Where" :choices="choices" path="hole" />
        <template v-if="row.kind === 'corner of the ledge'">
          <TextField v-if="!draft.undercut" v-model="draft.radius" label="Radius" bare="mm" path="radius" />
          <label class="flex min-h-11 items-center gap-2">
            <input v-model="draft.undercut" type="checkbox" class="size-5" /> undercut
          </label>
        </template>
        <TextField v-model="draft.words" class="col-span-2" label="How, and what was found" path="words" />
        <div class="col-span-2 flex flex-wrap gap-2">
          <button type="submit" class="quiet min-h-11 font-bold" :disabled="busy">Sound</button>
          <button type="button" class="quiet min-h-11" :disabled="busy" @click="look('not sound')">
            Not sound
          </button>
          <button type="button" class="quiet min-h-11" :disabled="busy" @click="look('waived')">
            Waive it as {{ person?.name ?? 'nobody yet' }}
          </button>
        </div>
        <RefusalChoices
          class="col-span-2"
          :refusal="refusal"
          @answer="(one) => answer(one, put, (confirmed) => look('sound', confirmed))"
        />
      </form>
    </div>
  </section>
</template>
