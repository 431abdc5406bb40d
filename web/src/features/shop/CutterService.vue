<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type CutterServiceBody, serveCutter } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** What was done to a cutter, and when. */
const props = defineProps<{ cutterId: string; today: string }>()
const emit = defineEmits<{ saved: [] }>()
const KINDS = ['sharpened', 'serviced', 'part exchanged', 'checked'].map((value) => ({ value, label: value }))
const { refusal, busy, send } = useForm()
const kind = ref('sharpened')
const words = ref('')
const save = () =>
  send(async () => {
    const body = {
      kind: kind.value as CutterServiceBody['kind'],
      words: words.value,
      done_on: props.today,
      person_id: personId.value,
    }
    await ask(serveCutter({ path: { cutter_id: props.cutterId }, body }))
    words.value = ''
    emit('saved')
  })
</script>

<template>
  <form class="flex flex-wrap items-end gap-2 pt-2" aria-label="What was done" @submit.prevent="save">
    <ChoiceField v-model="kind" class="w-40" label="Today it was" :choices="KINDS" path="kind" />
    <TextField v-model="words" class="min-w-32 flex-1" label="In words" path="words" />
    <button type="submit" class="quiet min-h-11" :disabled="busy">Write it down</button>
    <RefusalNote :refusal="refusal" />
  </form>
</template>
