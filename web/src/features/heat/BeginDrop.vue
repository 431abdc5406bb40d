<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { DropPageView } from '@/api/generated'
import { people, person } from '@/shared/state/people'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import type { DropRun } from './useDrop'
import type { Tried } from './useHeat'

/** Which liner into which hole, marked before anything is hot; two people and their roles; then the run begins. */
const props = defineProps<{ run: DropRun; page: DropPageView; tried: Tried; chosen: string | null }>()
const liner = ref('')
const drops = ref(person.value?.name ?? '')
const calls = ref('')
const greased = ref(true)
const reason = ref('')
const names = computed(() => people.value.map((one) => one.name))
const own = computed(() => props.page.tray.find((one) => one.hole === props.page.hole)?.liner ?? '')
watch(
  () => [props.page.offered, props.chosen, own.value] as const,
  ([offered, chosen, shown]) => {
    if (!offered.includes(liner.value)) {
      liner.value =
        chosen && offered.includes(chosen) ? chosen : offered.includes(shown) ? shown : (offered[0] ?? '')
    }
  },
  { immediate: true },
)
const minus = (value: number) => String(value).replace('-', '−')
const begin = () => {
  const { block_c, liner_c, wanted_m, air_c, humidity, enter_s, home_s, block_kg, pocket_wet } = props.tried
  return props.run.begin({
    liner_mark: liner.value,
    block_c,
    liner_c,
    wanted_m,
    air_c,
    humidity,
    enter_s: Math.max(1, enter_s),
    home_s,
    block_kg,
    pocket_wet,
    greased: greased.value,
    drops: drops.value,
    calls: calls.value,
    hold_reason: reason.value,
  })
}
</script>

<template>
  <div class="grid items-start gap-x-10 gap-y-4 p-5 lg:grid-cols-[minmax(0,34rem)_minmax(0,1fr)]">
    <div class="grid gap-3">
      <h1 class="text-2xl">Drop a liner into hole {{ page.hole }}</h1>
      <p class="text-lg">
        Block <b class="num">{{ minus(tried.block_c) }} °C</b>, liner
        <b class="num">{{ minus(tried.liner_c) }} °C</b>, in after
        <b class="num">{{ Math.max(1, tried.enter_s) }} s</b>, home in
        <b class="num">{{ tried.home_s }} s</b>:
        <RouterLink class="link" :to="{ name: 'heat', params: { hole: String(page.hole) } }"
          >as it was planned</RouterLink
        >
      </p>
      <div class="grid gap-3 sm:grid-cols-3 items-end">
        <label class="grid gap-1"
          >Liner
          <select v-model="liner" class="field" name="liner_mark">
            <option v-for="one in page.offered" :key="one" :value="one">{{ one }}</option>
          </select></label
        >
        <label class="grid gap-1"
          >Wipes, carries, lets go
          <select v-model="drops" class="field" name="drops">
            <option value="">–</option>
            <option v-for="one in names" :key="one" :value="one">{{ one }}</option>
          </select></label
        >
        <label class="grid gap-1"
          >Calls the clock, sees it square
          <select v-model="calls" class="field" name="calls">
            <option value="">–</option>
            <option v-for="one in names" :key="one" :value="one">{{ one }}</option>
          </select></label
        >
      </div>
      <label class="flex min-h-11 items-center gap-3"
        ><input v-model="greased" type="checkbox" class="h-6 w-6 accent-act" /> compound on the seat or grease
        on the seals goes on on the way</label
      >
      <RefusalNote
        v-if="run.refusal.value && run.refusal.value.code !== 'hold point'"
        :refusal="run.refusal.value"
      />
      <HoldReason v-model="reason" :refusal="run.refusal.value" @pass="begin" />
      <button
        type="button"
        class="act justify-self-start text-lg"
        :disabled="run.busy.value || !liner"
        @click="begin"
      >
        Begin the run
      </button>
      <p v-for="line in page.cautions" :key="line" class="caution">
        {{ line }} Local rules and licensed practice come first.
      </p>
    </div>
    <section aria-label="Which liner goes where">
      <h2 class="text-lg">Which liner goes where</h2>
      <p class="text-ink-soft">
        Mark every liner, its hole and the front before anything is hot; clock positions count from
        {{ page.front }}.
      </p>
      <ol class="mt-2 grid max-w-md gap-2">
        <li
          v-for="one in page.tray"
          :key="one.hole"
          class="flex items-baseline justify-between border-l-8 py-2 pr-3 pl-4"
          :class="one.hole === page.hole ? 'border-act bg-act-wash' : one.is_in ? 'border-in' : 'border-rule'"
        >
          <span class="text-xl"
            >hole <b>{{ one.hole }}</b></span
          >
          <b class="num text-2xl">{{ one.liner }}</b>
          <span class="w-20 text-right" :class="one.is_in ? 'text-in' : 'text-ink-soft'">{{
            one.is_in ? 'is in' : one.hole === page.hole ? 'this one' : 'to come'
          }}</span>
        </li>
      </ol>
    </section>
  </div>
</template>
