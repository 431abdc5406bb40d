<script setup lang="ts">
import { ask } from '@/api/ask'
import { chooseShopSchool, listSchools, type ShopSchoolView } from '@/api/generated'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import SchoolSides from '@/shared/ui/SchoolSides.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import { useForm } from '@/shared/ui/useForm'

/** Questions that shops answer differently: the side this shop follows in jobs it takes in from now on. */
const { data: schools, refusal: missing } = useLoaded(() => ask(listSchools()))
const { refusal, busy, send } = useForm()

function follow(school: ShopSchoolView, side: string): Promise<void> {
  return send(async () => {
    const body = { question: school.question, side, person_id: personId.value }
    schools.value = await ask(chooseShopSchool({ body }))
  })
}
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-4">
    <ShopNav />
    <h1 class="mt-4 text-xl">Schools</h1>
    <p class="max-w-prose text-ink-soft">
      Shops differ, and both sides have their reasons. A job starts with the sides chosen here and keeps them;
      on its route it can go another way, with a reason.
    </p>
    <RefusalNote :refusal="missing ?? refusal" />
    <p v-if="!schools && !missing" class="py-4 text-ink-soft">Loading the schools …</p>
    <ul class="mt-3 grid gap-x-10 lg:grid-cols-2">
      <li v-for="school in schools ?? []" :key="school.question" class="border-t border-rule py-3">
        <h2 class="text-base">{{ school.title }}</h2>
        <SchoolSides
          :title="school.title"
          :sides="school.sides"
          :disabled="busy"
          @choose="follow(school, $event)"
        />
        <p class="mt-1 text-sm text-ink-soft">
          Settled by: {{ school.settled_by
          }}<template v-if="school.chosen_by"> Chosen by {{ school.chosen_by }}.</template>
        </p>
      </li>
    </ul>
  </main>
</template>
