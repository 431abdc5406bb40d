<script setup lang="ts">
import { ref } from 'vue'

import type { CalendarJobView } from '@/api/generated'
import DateField from '@/shared/ui/DateField.vue'
import DialogFrame from '@/shared/ui/DialogFrame.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

import type { CalendarNow } from './useCalendar'
import { dayWords, percent } from './words'

/** A day promised to the owner: what can be held in nine of ten is offered, what was told stands on the tape. */
const props = defineProps<{ job: CalendarJobView; now: CalendarNow; message: string }>()
const emit = defineEmits<{ close: [] }>()
const draft = ref({
  day: props.job.offered ?? '',
  told: props.message,
  last: props.job.last_day ?? '',
  cost: '',
})
const form = useForm()
async function save(day: string | null): Promise<void> {
  await form.send(async () => {
    const done = await props.now.promiseFor(
      props.job.job_id,
      day,
      draft.value.told,
      draft.value.last || null,
      draft.value.cost,
    )
    if (done) emit('close')
    else form.refusal.value = props.now.refusal.value
  })
}
</script>

<template>
  <DialogFrame :open="true" :title="`Promise ${job.name}`" @close="emit('close')">
    <form class="grid gap-3" @submit.prevent="save(draft.day || null)">
      <p>
        As planned it is ready <b>{{ dayWords(job.ready) }}</b>; nine in ten such weeks end by
        <b>{{ dayWords(job.offered) }}</b><template v-if="job.promised">
          ; promised is {{ dayWords(job.promised) }}, kept {{ percent(job.kept ?? 0) }}</template
        >.
      </p>
      <DateField v-model="draft.day" label="Promised for" path="promised" />
      <TextField v-model="draft.told" long label="What the owner is told" path="told" />
      <div class="grid grid-cols-2 gap-3">
        <DateField v-model="draft.last" label="The owner's own last day" path="last_day" />
        <TextField v-model="draft.cost" label="What a day after it costs him" path="day_cost" />
      </div>
      <div class="flex flex-wrap gap-3">
        <button type="submit" class="act" :disabled="form.busy.value">Promise it</button>
        <button
          v-if="job.promised"
          type="button"
          class="quiet"
          :disabled="form.busy.value"
          @click="save(null)"
        >
          Take the promise back
        </button>
      </div>
      <RefusalNote :refusal="elsewhere(form.refusal.value, ['promised', 'told', 'last_day', 'day_cost'])" />
    </form>
  </DialogFrame>
</template>
