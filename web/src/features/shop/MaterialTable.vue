<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type MaterialView, writeMaterial } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** How materials expand: what the shop wrote down goes before what is built in. */
defineProps<{ materials: MaterialView[] }>()
const emit = defineEmits<{ saved: [] }>()
const name = ref('')
const alpha = ref('')
const hottest = ref('')
const source = ref('')
const { refusal, send } = useForm()

function save(): Promise<void> {
  return send(async () => {
    const body = {
      name: name.value,
      alpha: alpha.value,
      hottest_c: hottest.value.trim() || null,
      source: source.value,
      person_id: personId.value,
    }
    await ask(writeMaterial({ body }))
    name.value = alpha.value = hottest.value = source.value = ''
    emit('saved')
  })
}
</script>

<template>
  <section aria-label="Materials">
    <h2 class="pt-6 text-lg">How materials expand</h2>
    <p class="text-sm text-ink-soft">
      Sizes are brought to 20 °C with these; each is taken to be right within one millionth per kelvin. A name
      of the card is found by its words, such as iron in “grey iron”.
    </p>
    <table class="mt-1 w-full max-w-3xl border-collapse">
      <thead>
        <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
          <th scope="col" class="py-1 font-normal">material</th>
          <th scope="col" class="pr-4 text-right font-normal">10⁻⁶ per K</th>
          <th scope="col" class="pr-4 text-right font-normal">not above [°C]</th>
          <th scope="col" class="font-normal">source</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in materials" :key="one.name" class="border-b border-rule">
          <th scope="row" class="py-1 text-left" :class="one.built_in && 'font-normal'">{{ one.name }}</th>
          <td class="num pr-4 text-right">{{ (one.alpha_per_k * 1e6).toFixed(1) }}</td>
          <td class="num pr-4 text-right">{{ one.hottest_c ?? '–' }}</td>
          <td class="text-sm" :class="one.built_in && 'text-ink-soft'">{{ one.source || 'not said' }}</td>
        </tr>
      </tbody>
    </table>
    <form
      class="mt-2 flex flex-wrap items-end gap-3"
      aria-label="Write a material down"
      @submit.prevent="save"
    >
      <div class="w-44"><TextField v-model="name" label="Material" path="name" /></div>
      <div class="w-32"><TextField v-model="alpha" label="10⁻⁶ per K" path="alpha" /></div>
      <div class="w-32"><TextField v-model="hottest" label="Not above" unit="°C" path="hottest_c" /></div>
      <div class="w-64"><TextField v-model="source" label="Where that is from" path="source" /></div>
      <button type="submit" class="quiet min-h-11" :disabled="!name.trim() || !alpha.trim()">
        Write it down
      </button>
    </form>
    <RefusalNote :refusal="refusal" />
  </section>
</template>
