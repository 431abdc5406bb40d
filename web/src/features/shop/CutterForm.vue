<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type CutterView, saveCutter } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** The card of a cutter, written anew: saved as its next version. */
const props = defineProps<{ card: CutterView | null }>()
const emit = defineEmits<{ saved: []; close: [] }>()
const { refusal, busy, send, answer } = useForm()
const mm = (metres: number | null | undefined) => (metres ? `${Number((metres * 1e3).toFixed(4))}` : '')
const draft = ref({
  name: props.card?.name ?? '',
  graduation: mm(props.card?.graduation_m),
  stop_accuracy: mm(props.card?.stop_accuracy_m),
  graduation_error_percent: props.card?.graduation_error_percent ?? 5,
  bit: props.card?.bit ?? '',
  bit_projection: mm(props.card?.bit_projection_m),
  oil: props.card?.oil ?? 'a few drops of clean oil before each hole',
  collars: props.card?.collars ?? '',
  stop_set: props.card?.stop_set ?? 'feeler between the collars, as thick as the cut',
  torque_nm: props.card?.torque_nm ?? null,
  bore_least: mm(props.card?.bore_least_m),
  bore_greatest: mm(props.card?.bore_greatest_m),
  vacuum_every: props.card?.vacuum_every ?? 10,
  note: props.card?.note ?? '',
})
const put = (path: string, text: string) => Object.assign(draft.value, { [path]: text })
const save = (confirmed = false): Promise<void> =>
  send(async () => {
    const body = {
      ...draft.value,
      confirmed,
      based_on_version: props.card?.version ?? 0,
      person_id: personId.value,
    }
    await ask(saveCutter({ body }))
    emit('saved')
  })
</script>

<template>
  <form
    class="mt-3 grid gap-3 border-2 border-ink p-4 sm:grid-cols-3"
    aria-label="Card of a cutter"
    @submit.prevent="save()"
  >
    <TextField v-model="draft.name" label="Name" path="name" />
    <TextField v-model="draft.bit" label="Bit" path="bit" />
    <TextField v-model="draft.bit_projection" label="Bit stands out" bare="mm" path="bit_projection" />
    <TextField v-model="draft.graduation" label="One graduation" bare="mm" path="graduation" />
    <TextField v-model="draft.stop_accuracy" label="Stop is good to ±" bare="mm" path="stop_accuracy" />
    <TextField
      v-model="draft.graduation_error_percent"
      label="Graduations are good to ± [%]"
      path="graduation_error_percent"
      :usual="5"
    />
    <TextField v-model="draft.oil" label="Oil" path="oil" />
    <TextField v-model="draft.collars" label="Collars" path="collars" />
    <TextField v-model="draft.stop_set" label="How the stop is set" path="stop_set" />
    <TextField v-model="draft.torque_nm" label="Torque [N·m]" path="torque_nm" />
    <TextField v-model="draft.bore_least" label="Smallest bore" bare="mm" path="bore_least" />
    <TextField v-model="draft.bore_greatest" label="Greatest bore" bare="mm" path="bore_greatest" />
    <TextField v-model="draft.vacuum_every" label="Vacuum every so many passes" path="vacuum_every" whole />
    <TextField v-model="draft.note" class="sm:col-span-2" label="Note" path="note" />
    <div class="flex flex-wrap items-center gap-3 sm:col-span-3">
      <button type="submit" class="act" :disabled="busy">Save the card</button>
      <button type="button" class="quiet min-h-11" @click="emit('close')">Leave it</button>
      <RefusalChoices :refusal="refusal" @answer="(one) => answer(one, put, save)" />
    </div>
  </form>
</template>
