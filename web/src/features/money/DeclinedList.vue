<script setup lang="ts">
import { ref } from 'vue'

import type { MoneyView } from '@/api/generated'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { elsewhere } from '@/shared/ui/problems'
import { useForm } from '@/shared/ui/useForm'

import type { MoneyNow } from './useMoney'

/** What else could have been done and was not wanted, with the reason: it stands on the estimate. */
const props = defineProps<{ view: MoneyView; now: MoneyNow }>()
const draft = ref({ what: '', reason: '' })
const form = useForm()
const save = () =>
  form.send(async () => {
    if (await props.now.decline(draft.value.what, draft.value.reason)) draft.value = { what: '', reason: '' }
    else form.refusal.value = props.now.refusal.value
  })
</script>

<template>
  <form class="grid content-start gap-3 sm:grid-cols-2" aria-labelledby="declined" @submit.prevent="save">
    <h2 id="declined" class="text-lg sm:col-span-2">Talked over and not wanted</h2>
    <ul v-if="view.declined.length" class="text-sm sm:col-span-2">
      <li v-for="one in view.declined" :key="one.declined_at" class="border-b border-rule py-1">
        <b>{{ one.what }}</b>: {{ one.reason }} <span class="text-ink-soft">{{ one.declined_by }}</span>
      </li>
    </ul>
    <TextField v-model="draft.what" label="What" path="what" />
    <TextField v-model="draft.reason" label="Why not" path="reason" />
    <button type="submit" class="act justify-self-start" :disabled="form.busy.value || !draft.what">
      Write it down
    </button>
    <RefusalNote class="sm:col-span-2" :refusal="elsewhere(form.refusal.value, ['what', 'reason'])" />
  </form>
</template>
