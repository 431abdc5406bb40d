<script setup lang="ts">
import { computed, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { ask } from '@/api/ask'
import { type LandsView, readLands } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'

import LandStrip from './LandStrip.vue'
import PartsCompared from './PartsCompared.vue'

/** The lands of a make of liner, from every liner that was ever read: a running change shows, what is unread too. */
const route = useRoute()
const router = useRouter()
const make = computed(() => String(route.query['make'] ?? ''))
const {
  data: view,
  refusal,
  load,
} = useLoaded<LandsView>(() => ask(readLands({ query: { make: make.value } })))
watch(make, () => void load())
const names = computed(() => new Map((view.value?.liners ?? []).map((one) => [one.liner_id, one.mark])))
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
const everyLand = computed(() => [
  ...(view.value?.lands.map((one) => one.land) ?? []),
  ...(view.value?.unread ?? []),
])
function cell(land: string, liner: string): string {
  const now = view.value
  const read = now?.lands.find((one) => one.land === land)?.reads.find((one) => one.liner_id === liner)
  if (!now || !read) return 'unknown'
  if (land !== now.reference) return `${small(read.value.value_m)} ±${plain(read.value.expanded_m)}`
  return lengthText(read.value.value_m, SIZE_WITH[unit.value])
}
const plain = (metres: number) => lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0 })
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
      <h1 class="text-xl">Lands of a make</h1>
      <div v-if="view" role="group" aria-label="Make" class="flex flex-wrap">
        <button
          v-for="one in view.makes"
          :key="one.make"
          type="button"
          class="min-h-11 border border-ink px-3"
          :class="one.make === view.make ? 'bg-ink text-paper' : ''"
          :aria-pressed="one.make === view.make"
          @click="router.replace({ query: { make: one.make } })"
        >
          {{ one.make || 'no make written' }} <span class="num text-sm">{{ one.liners }}</span>
        </button>
      </div>
    </div>
    <RefusalNote v-if="!view" :refusal="refusal" />
    <template v-else>
      <p
        v-for="one in view.alerts"
        :key="one.words"
        role="status"
        class="mt-2 border-l-4 border-out py-1 pl-3 font-bold text-out"
      >
        {{ one.words }}
      </p>
      <p
        v-for="one in view.notices"
        :key="one"
        role="status"
        class="mt-2 border-l-4 border-unsure py-1 pl-3 text-lg font-bold text-unsure"
      >
        {{ one }}
      </p>
      <div class="mt-3 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,8fr)_minmax(0,4fr)]">
        <div class="grid content-start gap-4">
          <section v-for="one in view.lands" :key="one.land" :aria-label="one.land">
            <p class="flex flex-wrap items-baseline gap-x-4">
              <b class="text-lg">{{ one.land }}</b>
              <span class="text-sm text-ink-soft">
                {{
                  one.land === view.reference
                    ? `each against the mean of all, ${unit}`
                    : `over the ${view.reference}, on the same liner, ${unit}`
                }}
              </span>
              <span class="num ml-auto"
                ><template v-if="one.land !== view.reference && one.reads.length"
                  >{{ small(one.mean_m) }}, </template
                ><template v-if="one.deviation_m !== null">scatter {{ plain(one.deviation_m) }}, </template
                >{{ one.reads.length }} of {{ view.liners.length }} read</span
              >
            </p>
            <LandStrip
              v-if="one.reads.length"
              :land="one"
              :names="names"
              :is-size="one.land === view.reference"
            />
          </section>
          <p v-for="one in view.unread" :key="one" class="border-t border-rule py-2">
            <b class="text-lg">{{ one }}</b>
            <span class="ml-4 text-unsure">nobody has read it on a liner of this make: unknown</span>
          </p>
          <p v-if="!view.lands.length" class="text-ink-soft">
            No flange was read yet: read one land of every liner, and a second one where the card names it.
          </p>
        </div>
        <PartsCompared v-if="view.every_liner.length > 1" :liners="view.every_liner" />
        <section
          v-if="view.lands.length"
          class="relative overflow-x-auto lg:col-span-2"
          aria-label="Liner by liner"
        >
          <table class="w-full text-left">
            <thead class="text-sm text-ink-soft">
              <tr class="border-b border-ink">
                <th scope="col" class="py-1 font-normal">liner</th>
                <th scope="col" class="font-normal">job</th>
                <th scope="col" class="font-normal">batch</th>
                <th v-for="one in everyLand" :key="one" scope="col" class="text-right font-normal">
                  {{ one }}{{ one === view.reference ? `, ${SIZE_WITH[unit]}` : `, ${unit} over it` }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in view.liners" :key="one.liner_id" class="border-b border-rule">
                <th scope="row" class="py-1">{{ one.mark }}</th>
                <td>
                  <RouterLink class="link" :to="{ name: 'liners', params: { job: one.job_id } }">{{
                    one.job
                  }}</RouterLink>
                </td>
                <td>{{ one.batch || 'not written' }}</td>
                <td v-for="land in everyLand" :key="land" class="num text-right">
                  <span :class="cell(land, one.liner_id) === 'unknown' && 'text-unsure'">{{
                    cell(land, one.liner_id)
                  }}</span>
                </td>
              </tr>
            </tbody>
          </table>
        </section>
      </div>
    </template>
  </main>
</template>
