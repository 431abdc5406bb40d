<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type FixtureKind, type FixtureView, listFixtures, saveFixture } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** The plates, bars, blocks and pads of the shop: what each fits, and what was changed on it. */
const { data: fixtures, refusal: missing } = useLoaded<FixtureView[]>(() => ask(listFixtures()))
const { refusal, busy, send } = useForm()
const KINDS = ['torque plate', 'fixture plate', 'bar', 'blocks', 'pads'].map((value) => ({
  value,
  label: value,
}))
const empty = () => ({
  name: '',
  kind: 'torque plate' as FixtureKind,
  fits: '',
  thickness: '',
  material: '',
  changed: '',
  note: '',
})
const draft = ref(empty())
const mm = (metres: number) => String(Number((metres * 1000).toFixed(2)))
function edit(one: FixtureView): void {
  const { name, kind, fits, material, changed, note } = one
  draft.value = {
    name,
    kind,
    fits,
    material,
    changed,
    note,
    thickness: one.thickness_m === null ? '' : mm(one.thickness_m),
  }
}
const save = () =>
  send(async () => {
    fixtures.value = await ask(saveFixture({ body: { ...draft.value, person_id: personId.value } }))
    draft.value = empty()
  })
</script>

<template>
  <main class="mx-auto w-full max-w-5xl px-5 py-4">
    <ShopNav />
    <h1 class="text-xl">Plates and fixtures</h1>
    <RefusalNote v-if="!fixtures" :refusal="missing" />
    <p v-if="fixtures?.length === 0" class="py-3 text-ink-soft">
      None is written down yet. Write down which engine each fits and what was changed on it: in ten years
      nobody remembers.
    </p>
    <div v-if="fixtures?.length" class="relative overflow-x-auto" tabindex="0">
      <table class="mt-2 w-full border-collapse text-left">
        <thead class="text-sm text-ink-soft">
          <tr class="border-b border-ink">
            <th scope="col" class="py-1 font-normal">name</th>
            <th scope="col" class="px-2 font-normal">kind</th>
            <th scope="col" class="px-2 font-normal">fits</th>
            <th scope="col" class="px-2 font-normal">made of</th>
            <th scope="col" class="px-2 font-normal">changed on it; note</th>
            <th><span class="sr-only">change</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in fixtures" :key="one.name" class="border-b border-rule">
            <th scope="row" class="py-1.5">{{ one.name }}</th>
            <td class="px-2">{{ one.kind }}</td>
            <td class="px-2">{{ one.fits }}</td>
            <td class="px-2">
              <span v-if="one.thickness_m !== null" class="num">{{ mm(one.thickness_m) }} mm</span>
              {{ one.material }}
            </td>
            <td class="px-2">
              {{ one.changed }} <span class="text-ink-soft">{{ one.note }}</span>
            </td>
            <td><button type="button" class="link min-h-11" @click="edit(one)">Change</button></td>
          </tr>
        </tbody>
      </table>
    </div>
    <form
      class="mt-4 grid gap-3 border-2 border-ink p-4 sm:grid-cols-3"
      aria-label="A plate or fixture"
      @submit.prevent="save()"
    >
      <TextField v-model="draft.name" label="Name" path="name" />
      <ChoiceField v-model="draft.kind" label="Kind" :choices="KINDS" path="kind" />
      <TextField v-model="draft.fits" label="Which engine it fits" path="fits" />
      <TextField v-model="draft.thickness" label="Thickness" bare="mm" path="thickness" />
      <TextField v-model="draft.material" label="Made of" path="material" />
      <TextField v-model="draft.changed" label="What was changed on it" path="changed" />
      <TextField v-model="draft.note" class="sm:col-span-2" label="Note" path="note" />
      <button type="submit" class="act self-end justify-self-start" :disabled="busy">Write it down</button>
      <RefusalNote class="sm:col-span-3" :refusal="refusal" />
    </form>
  </main>
</template>
