<script setup lang="ts">
import { computed } from 'vue'

import { ask } from '@/api/ask'
import { type KnownView, listCauses } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'

import OwnCauseForm from './OwnCauseForm.vue'
import OwnCheckForm from './OwnCheckForm.vue'

/** The causes of heights that are known and the checks that find them: the shop's own beside common practice. */
const { data: known, refusal } = useLoaded<KnownView>(() => ask(listCauses()))
const put = (now: KnownView) => (known.value = now)
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
const whose = (own: boolean) => (own ? 'our own' : 'usual')
const names = computed(() => known.value?.causes.slice(1).map((one) => one.name) ?? [])
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <h1 class="text-xl">Causes and checks</h1>
    <p class="text-sm text-ink-soft">
      What may be behind heights that do not add up. One of the same name takes the place of what stands here.
      <RouterLink class="link" :to="{ name: 'cases' }">Cases that were settled</RouterLink>
    </p>
    <RefusalNote v-if="!known" :refusal="refusal" />
    <div v-else class="mt-2 grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,8fr)_minmax(0,4fr)]">
      <div class="grid content-start gap-6 overflow-x-auto">
        <table class="w-full text-left text-sm" aria-label="Causes">
          <thead class="text-ink-soft">
            <tr class="border-b border-ink">
              <th class="py-1 font-normal">cause</th>
              <th class="font-normal">where it shows</th>
              <th class="text-right font-normal">effect [{{ unit }}]</th>
              <th class="pl-4 text-right font-normal">counts</th>
              <th class="pl-4 font-normal">by</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in known.causes" :key="one.name" class="border-b border-rule">
              <th scope="row" class="py-1 pr-3 leading-tight">
                {{ one.name }}<span class="block font-normal text-ink-soft">{{ one.shows }}</span>
              </th>
              <td class="pr-3">{{ one.pattern }}</td>
              <td class="num text-right whitespace-nowrap">
                {{ one.low_m === one.high_m ? '–' : `${small(one.low_m)} to ${small(one.high_m)}` }}
              </td>
              <td class="num pl-4 text-right">{{ one.prior.toFixed(2) }}</td>
              <td class="pl-4" :class="one.own ? 'font-bold' : 'text-ink-soft'">{{ whose(one.own) }}</td>
            </tr>
          </tbody>
        </table>
        <table class="w-full text-left text-sm" aria-label="Checks">
          <thead class="text-ink-soft">
            <tr class="border-b border-ink">
              <th class="py-1 font-normal">check</th>
              <th class="font-normal">finds</th>
              <th class="text-right font-normal">min</th>
              <th class="pl-4 text-right font-normal">reads within [{{ unit }}]</th>
              <th class="pl-4 font-normal">by</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in known.checks" :key="one.name" class="border-b border-rule">
              <th scope="row" class="py-1 pr-3 leading-tight">
                {{ one.name }}<span class="block font-normal text-ink-soft">{{ one.tools }}</span>
              </th>
              <td class="pr-3">{{ one.finds.join('; ') }}</td>
              <td class="num text-right">{{ one.minutes }}</td>
              <td class="num pl-4 text-right">
                ±{{ lengthText(one.standard_m, unit, { digits: unit === 'thou' ? 2 : 0 }) }}
              </td>
              <td class="pl-4" :class="one.own ? 'font-bold' : 'text-ink-soft'">{{ whose(one.own) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="grid content-start gap-8">
        <OwnCauseForm @saved="put" />
        <OwnCheckForm :causes="names" @saved="put" />
      </div>
    </div>
  </main>
</template>
