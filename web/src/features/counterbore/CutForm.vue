<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { type HolePlanView, type HoleView, recordCut } from '@/api/generated'
import { bareShim } from '@/shared/format/bareUnit'
import { newId } from '@/shared/newId'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { useJob } from '@/shared/state/job'
import { personId, unit } from '@/shared/state/preferences'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import { firstPosition } from './next'
import { shimText } from './shims'

/** What was cut, as it was cut: depth by the stop, passes counted, the shim it was cut for. */
const props = defineProps<{ hole: HoleView; plan: HolePlanView | null; again?: boolean }>()
const job = useJob()
const router = useRouter()
const EMPTY = { id: '', depth: '', passes: '', shim: '', note: '' }
const draft = useLocalStorage(`vallo-cut-${props.hole.hole_id}`, { ...EMPTY })
const { refusal, busy, send, answer } = useForm()
const holdReason = ref('')

watch(
  () => props.plan,
  (plan) => {
    const cut = plan?.plan
    if (draft.value.depth !== '' || !cut || props.again) return
    draft.value.depth = lengthText(cut.depth_m, SIZE_WITH[unit.value])
    draft.value.passes = String(cut.passes + (cut.part_pass_m > 1e-9 ? 1 : 0))
    draft.value.shim = shimText(cut.shim_typed, job.block.value?.card.unit ?? 'mm')
  },
  { immediate: true },
)

const put = (path: string, text: string) => Object.assign(draft.value, { [path]: text })

function record(confirmed = false): Promise<void> {
  draft.value.id ||= newId()
  return send(async () => {
    await ask(
      recordCut({
        path: { hole_id: props.hole.hole_id },
        body: {
          cut_id: draft.value.id,
          depth: draft.value.depth,
          depth_unit: SIZE_WITH[unit.value],
          passes: draft.value.passes as unknown as number,
          shim: draft.value.shim,
          shim_unit: bareShim(unit.value),
          note: draft.value.note,
          confirmed,
          hold_reason: holdReason.value,
          person_id: personId.value,
        },
      }),
    )
    draft.value = { ...EMPTY }
    holdReason.value = ''
    await job.reload()
    await router.push(firstPosition(job, 'counterbore', props.hole.number))
  })
}
</script>

<template>
  <form class="grid gap-3" aria-label="Record the cut" @submit.prevent="record()">
    <h2 class="text-lg">{{ again ? 'Cut it again' : 'Record the cut' }}</h2>
    <p class="caution">
      Rotating cutter, sharp swarf, iron dust: guard, eye protection, no gloves near the spindle, no air line
      into the bore. Local rules and licensed practice come first.
    </p>
    <div class="grid grid-cols-2 gap-3">
      <TextField v-model="draft.depth" label="Depth by the stop" :bare="SIZE_WITH[unit]" path="depth" />
      <TextField v-model="draft.passes" label="Passes" path="passes" whole />
    </div>
    <TextField v-model="draft.shim" label="Cut for shim" path="shim" :bare="bareShim(unit)" />
    <TextField v-model="draft.note" label="Note" path="note" />
    <HoldReason v-model="holdReason" :refusal="refusal" @pass="record(true)" />
    <RefusalChoices
      v-if="refusal?.code !== 'hold point'"
      :refusal="refusal"
      @answer="(one) => answer(one, put, record)"
    />
    <button type="submit" class="justify-self-start" :class="again ? 'quiet' : 'act'" :disabled="busy">
      Record the cut
    </button>
    <p class="text-sm text-ink-soft">
      The liner counts as out with the cut. Knock the burr off before the ledge is measured: a burr reads
      shallow.
    </p>
  </form>
</template>
