<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

import type { MatchRowView } from '@/api/generated'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

import type { PistonsNow } from './usePistons'

/** What stands on the piston of a hole, which way it faces, new or used, how its pin is held. */
const props = defineProps<{ now: PistonsNow; row: MatchRowView; jobId: string }>()
const emit = defineEmits<{ kept: [] }>()
const { refusal, busy, send } = useForm()
const EMPTY = {
  mark: props.row.match?.mark ?? '',
  faces: props.row.match?.faces ?? '',
  run: props.row.match?.run ?? 'new',
  pin: props.row.match?.pin ?? 'held by clips',
  words: '',
}
const draft = useLocalStorage(`vallo-piston-${props.jobId}-${props.row.hole}`, EMPTY)
const of = (values: readonly string[]) => values.map((value) => ({ value, label: value }))
const keep = () =>
  send(async () => {
    await props.now.match(props.row.hole, { ...draft.value })
    draft.value = { ...EMPTY, words: '' }
    emit('kept')
  })
</script>

<template>
  <form
    class="mt-2 grid grid-cols-2 items-end gap-3 border-t border-rule pt-2 sm:grid-cols-[1fr_2fr_1fr_1.4fr_auto]"
    :aria-label="`Piston of hole ${row.hole}`"
    @submit.prevent="keep"
  >
    <TextField v-model="draft.mark" label="Mark on the piston" path="mark" />
    <TextField v-model="draft.faces" label="Which way it faces" path="faces" />
    <ChoiceField v-model="draft.run" label="It is" :choices="of(['new', 'used'])" path="run" />
    <ChoiceField
      v-model="draft.pin"
      label="Its pin"
      :choices="of(['held by clips', 'held by end plugs', 'pressed in the rod', 'clamped in the rod'])"
      path="pin"
    />
    <button type="submit" class="act" :disabled="busy">Write it down</button>
    <RefusalNote class="col-span-full" :refusal="refusal" />
  </form>
</template>
