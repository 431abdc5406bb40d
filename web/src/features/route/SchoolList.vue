<script setup lang="ts">
import { ref } from 'vue'

import type { SchoolChangeView, SchoolView, SideView } from '@/api/generated'
import DialogFrame from '@/shared/ui/DialogFrame.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import SchoolSides from '@/shared/ui/SchoolSides.vue'
import TextField from '@/shared/ui/TextField.vue'

import { changeWords } from './words'
import type { RouteNow } from './useRoute'

/** Questions that shops answer differently: both sides with their reason; a change says first what it changes. */
const props = defineProps<{ schools: SchoolView[]; now: RouteNow }>()

const asked = ref<{ school: SchoolView; side: SideView; change: SchoolChangeView } | null>(null)
const reason = ref('')
async function look(school: SchoolView, side: SideView): Promise<void> {
  if (side.chosen) return
  const change = await props.now.preview(school.question, side.name)
  reason.value = ''
  if (change) asked.value = { school, side, change }
}
function lookAt(school: SchoolView, name: string): void {
  const side = school.sides.find((one) => one.name === name)
  if (side) void look(school, side)
}
async function follow(): Promise<void> {
  if (!asked.value) return
  const { school, side } = asked.value
  if (await props.now.choose(school.question, side.name, reason.value)) asked.value = null
}
defineExpose({ look })
</script>

<template>
  <section aria-label="Schools">
    <ul class="grid gap-x-8 md:grid-cols-2">
      <li v-for="school in schools" :key="school.question" class="border-t border-rule py-3">
        <h3>{{ school.title }}</h3>
        <SchoolSides :title="school.title" :sides="school.sides" @choose="lookAt(school, $event)" />
        <p class="mt-1 text-sm text-ink-soft">
          Settled by: {{ school.settled_by }}
          <template v-if="school.because"> {{ school.chosen_by }} chose: {{ school.because }}.</template>
        </p>
      </li>
    </ul>
    <RefusalNote v-if="!asked" :refusal="now.refusal.value" />
    <DialogFrame v-if="asked" open :title="`${asked.school.title}: ${asked.side.name}`" @close="asked = null">
      <p>{{ asked.side.reason }}</p>
      <ul class="my-3 list-disc pl-5">
        <li v-for="line in changeWords(asked.change)" :key="line">{{ line }}</li>
      </ul>
      <form class="grid gap-3" @submit.prevent="follow">
        <TextField v-model="reason" label="Why this job" path="reason" />
        <RefusalNote :refusal="now.refusal.value" />
        <button type="submit" class="act justify-self-start" :disabled="reason.trim() === ''">
          Follow it
        </button>
      </form>
    </DialogFrame>
  </section>
</template>
