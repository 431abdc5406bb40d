<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type CutterView, listCutters } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { torqueText } from '@/shared/format/others'
import { dayText, whenText } from '@/shared/format/time'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'

import CutterForm from './CutterForm.vue'
import CutterService from './CutterService.vue'
import LearnedPlot from './LearnedPlot.vue'
import PassSwitchForm from './PassSwitchForm.vue'

/** The cutters of the shop: their cards, what was done to them, and what their own runs teach. */
const { data: cutters, refusal, load } = useLoaded<CutterView[]>(() => ask(listCutters()))
const edited = ref<CutterView | 'new' | null>(null)
const small = (metres: number) => `${lengthText(metres, unit.value)} ${unit.value}`
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
const bores = (one: CutterView) => {
  if (one.bore_least_m === null && one.bore_greatest_m === null) return 'not said'
  return [one.bore_least_m, one.bore_greatest_m].map((m) => (m === null ? '…' : size(m))).join(' to ')
}
const rows = (one: CutterView): [string, string][] => [
  [
    'bit',
    [one.bit, one.bit_projection_m === null ? '' : `stands out ${size(one.bit_projection_m)}`]
      .filter(Boolean)
      .join(', ') || 'not said',
  ],
  ['oil', one.oil || 'not said'],
  ['collars', one.collars || 'not said'],
  ['stop is set', one.stop_set || 'not said'],
  ['torque', one.torque_nm === null ? 'not said' : torqueText(one.torque_nm)],
  ['bores', bores(one)],
  ['vacuum', `every ${one.vacuum_every} passes`],
]
async function saved(): Promise<void> {
  edited.value = null
  await load()
}
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <div class="flex flex-wrap items-baseline gap-x-5">
      <h1 class="text-xl">Counterbore cutters</h1>
      <button type="button" class="quiet ml-auto min-h-11" @click="edited = 'new'">A new cutter</button>
    </div>
    <RefusalNote v-if="!cutters" :refusal="refusal" />
    <p v-if="cutters?.length === 0" class="py-4 text-ink-soft">
      No cutter has a card yet. Write one: runs name the oil, the torque and the stop from it.
    </p>
    <CutterForm
      v-if="edited"
      :key="edited === 'new' ? '' : edited.name"
      :card="edited === 'new' ? null : edited"
      @saved="saved"
      @close="edited = null"
    />
    <article v-for="one in cutters ?? []" :key="one.cutter_id" class="mt-4 border-t-2 border-ink pt-2">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h2 class="text-lg">{{ one.name }}</h2>
        <p class="text-sm text-ink-soft">
          card {{ one.version }}, {{ one.saved_by }} {{ whenText(one.saved_at) }}
        </p>
        <button type="button" class="link ml-auto min-h-11" @click="edited = one">Write the card anew</button>
      </div>
      <div class="grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,4fr)_minmax(0,7fr)]">
        <div>
          <dl class="grid grid-cols-[auto_1fr] gap-x-5">
            <template v-for="[name, words] in rows(one)" :key="name">
              <dt class="text-ink-soft">{{ name }}</dt>
              <dd>{{ words }}</dd>
            </template>
          </dl>
          <p v-if="one.note" class="pt-1 text-sm text-ink-soft">{{ one.note }}</p>
          <h3 class="mt-3 border-b border-rule">Sharpening and service</h3>
          <ul>
            <li v-for="(done, at) in one.services" :key="at" class="border-b border-rule py-1">
              <span class="num mr-2">{{ done.done_on }}</span> <b>{{ done.kind }}</b> {{ done.words }}
              <span class="text-ink-soft">{{ done.noted_by }}</span>
            </li>
            <li v-if="one.services.length === 0" class="py-1 text-ink-soft">nothing written down</li>
          </ul>
          <CutterService :cutter-id="one.cutter_id" :today="dayText()" @saved="load()" />
        </div>
        <div>
          <table class="w-full text-left" :aria-label="`How ${one.name} cuts`">
            <thead class="text-sm text-ink-soft">
              <tr>
                <th class="font-normal"><span class="sr-only">what</span></th>
                <th class="font-normal">as marked</th>
                <th v-for="learned in one.learned" :key="learned.material" class="font-normal">
                  learned in {{ learned.material }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr class="border-b border-rule">
                <th class="py-1 font-normal">one graduation</th>
                <td>{{ small(one.graduation_m) }} ±{{ one.graduation_error_percent }} %</td>
                <td v-for="learned in one.learned" :key="learned.material">
                  <template v-if="learned.graduation_m"
                    ><b>{{ small(learned.graduation_m.value) }}</b> ±{{ small(learned.graduation_m.within) }},
                    n {{ learned.graduation_m.n }}</template
                  ><template v-else>–</template>
                </td>
              </tr>
              <tr class="border-b border-rule">
                <th class="py-1 font-normal">stop is good to</th>
                <td>±{{ small(one.stop_accuracy_m) }}</td>
                <td v-for="learned in one.learned" :key="learned.material">
                  <template v-if="learned.setting_m && learned.setting_prediction_m !== null"
                    ><b>±{{ small(learned.setting_prediction_m) }}</b> the next, n
                    {{ learned.setting_m.n }}</template
                  ><template v-else>–</template>
                </td>
              </tr>
              <tr class="border-b border-rule">
                <th class="py-1 font-normal">one pass</th>
                <td>about 60 s</td>
                <td v-for="learned in one.learned" :key="learned.material">
                  <template v-if="learned.pass_s"
                    ><b>{{ Math.round(learned.pass_s.value) }} s</b>, half of them
                    {{ Math.round(learned.pass_low_s ?? 0) }} to
                    {{ Math.round(learned.pass_high_s ?? 0) }} s</template
                  ><template v-else>–</template>
                </td>
              </tr>
            </tbody>
          </table>
          <template v-for="learned in one.learned" :key="learned.material">
            <p class="pt-1 text-sm text-ink-soft">
              {{
                (learned.setting_m?.n ?? 0) >= (one.enough ?? 5)
                  ? `Own experience: the next plan in ${learned.material} stands on it.`
                  : `From ${one.enough} runs on the next plan stands on it.`
              }}
            </p>
            <LearnedPlot :learned="learned" />
          </template>
        </div>
      </div>
    </article>
    <PassSwitchForm />
  </main>
</template>
