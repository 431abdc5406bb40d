<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { listPressTools, type PressToolView, savePressTool, type ToolKind } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** The pullers and presses of the shop: what each gives at the most, and what a turn takes in. */
const { data: tools, refusal: missing, load } = useLoaded<PressToolView[]>(() => ask(listPressTools()))
const { refusal, busy, send } = useForm()
const KINDS = ['screw puller', 'press', 'hydraulic jack'].map((value) => ({ value, label: value }))
const empty = () => ({
  name: '',
  kind: 'screw puller',
  capacity_kn: '',
  turn: '',
  force_shown: false,
  note: '',
})
const draft = ref(empty())
function edit(one: PressToolView): void {
  draft.value = {
    ...one,
    capacity_kn: String(one.capacity_n / 1000),
    turn: one.turn_m === null ? '' : String(Number((one.turn_m * 1000).toFixed(3))),
  }
}
const save = () =>
  send(async () => {
    const { name, kind, capacity_kn, turn, force_shown, note } = draft.value
    const body = { name, kind: kind as ToolKind, turn, force_shown, note }
    tools.value = await ask(
      savePressTool({ body: { ...body, capacity_kn: Number(capacity_kn), person_id: personId.value } }),
    )
    draft.value = empty()
    await load()
  })
</script>

<template>
  <main class="mx-auto w-full max-w-5xl px-5 py-4">
    <ShopNav />
    <h1 class="text-xl">Pullers and presses</h1>
    <RefusalNote v-if="!tools" :refusal="missing" />
    <p v-if="tools?.length === 0" class="py-3 text-ink-soft">
      None is written down yet. Write one down: a pull is begun with it, and told what it can give.
    </p>
    <table v-if="tools?.length" class="mt-2 w-full border-collapse text-left">
      <thead class="text-sm text-ink-soft">
        <tr class="border-b border-ink">
          <th scope="col" class="py-1 font-normal">name</th>
          <th scope="col" class="px-2 font-normal">kind</th>
          <th scope="col" class="px-2 text-right font-normal">gives, kN</th>
          <th scope="col" class="px-2 text-right font-normal">a turn, mm</th>
          <th scope="col" class="px-2 font-normal">force</th>
          <th scope="col" class="px-2 font-normal">note</th>
          <th><span class="sr-only">change</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in tools" :key="one.name" class="border-b border-rule">
          <th scope="row" class="py-1.5">{{ one.name }}</th>
          <td class="px-2">{{ one.kind }}</td>
          <td class="num px-2 text-right">{{ one.capacity_n / 1000 }}</td>
          <td class="num px-2 text-right">
            {{ one.turn_m === null ? '–' : (one.turn_m * 1000).toFixed(2) }}
          </td>
          <td class="px-2">{{ one.force_shown ? 'shown' : 'not shown' }}</td>
          <td class="px-2 text-ink-soft">{{ one.note }}</td>
          <td><button type="button" class="link min-h-11" @click="edit(one)">Change</button></td>
        </tr>
      </tbody>
    </table>
    <form
      class="mt-4 grid gap-3 border-2 border-ink p-4 sm:grid-cols-3"
      aria-label="A puller or press"
      @submit.prevent="save()"
    >
      <TextField v-model="draft.name" label="Name" path="name" />
      <ChoiceField v-model="draft.kind" label="Kind" :choices="KINDS" path="kind" />
      <TextField v-model="draft.capacity_kn" label="Gives at the most [kN]" path="capacity_kn" />
      <TextField v-model="draft.turn" label="One turn takes in" bare="mm" path="turn" />
      <TextField v-model="draft.note" label="Note" path="note" />
      <label class="flex items-end gap-2 pb-2"
        ><input v-model="draft.force_shown" type="checkbox" /> it shows the force</label
      >
      <button type="submit" class="act justify-self-start" :disabled="busy">Write it down</button>
      <RefusalNote class="sm:col-span-3" :refusal="refusal" />
      <p class="caution sm:col-span-3">
        Press and puller loads: stand aside, guard the parts that can fly. Local rules and licensed practice
        come first.
      </p>
    </form>
  </main>
</template>
