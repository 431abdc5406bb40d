<script setup lang="ts">
import { computed } from 'vue'

import type { HotHoldView, HotMomentView } from '@/api/generated'
import StateGate from '@/shared/charts/StateGate.vue'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { NUMBER_TONE, STATE_TONE } from '@/shared/format/tones'
import { unit } from '@/shared/state/preferences'

/** Every moment in a row: what is left of the press, what holds against the drag, gap, height. */
const props = defineProps<{ view: HotHoldView; chosen: number }>()
const emit = defineEmits<{ choose: [at: number] }>()
const GRIP: Record<string, string> = { in: 'gripped', out: 'free', 'cannot tell': 'just free' }
const kn = (newtons: number) => (newtons / 1000).toFixed(1)
const most = computed(() =>
  Math.max(1, ...props.view.moments.map((one) => one.by_press_n + (one.by_clamp_n ?? 0))),
)
const wide = (newtons: number) => (newtons / most.value) * 150
const height = (one: HotMomentView) => one.stands ?? one.height
const GAP_COARSE = 0.5e-3
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="region" aria-label="Moments of running">
    <table class="w-full border-collapse text-[0.95rem]">
      <thead class="text-left text-sm text-ink-soft">
        <tr class="border-b-2 border-ink align-bottom">
          <th scope="col" class="py-1 font-normal" colspan="2">when<br />block, liner</th>
          <th scope="col" class="px-2 font-normal">press on Ø<br />{{ unit }}</th>
          <th scope="col" class="px-2 font-normal">
            holds it down, kN<template v-if="view.drag_n !== null"
              ><br />against {{ kn(view.drag_n) }} drag</template
            >
          </th>
          <th v-if="view.moments.some((one) => one.gap !== null)" scope="col" class="px-2 font-normal">
            gap<br />{{ unit }}
          </th>
          <th scope="col" class="px-2 font-normal">
            {{ view.stands ? 'stands' : 'height' }}<br />{{ unit }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(one, at) in view.moments"
          :key="one.name"
          class="cursor-pointer border-b border-rule align-top"
          :class="at === chosen ? 'bg-part-wash' : 'hover:bg-sheet'"
          @click="emit('choose', at)"
        >
          <td class="py-2 pr-2">
            <button
              type="button"
              class="flex h-7 w-7 items-center justify-center rounded-full border-2 font-bold"
              :class="at === chosen ? 'border-part bg-part text-paper' : 'border-ink-soft'"
              :aria-label="`${at + 1}: look at ${one.name}`"
              :aria-pressed="at === chosen"
            >
              {{ at + 1 }}
            </button>
          </td>
          <th scope="row" class="py-2 text-left">
            {{ one.name
            }}<span class="num block text-sm font-normal text-ink-soft"
              >{{ one.block_c }}, {{ one.liner_c }} °C</span
            >
          </th>
          <td class="px-2 py-2">
            <span class="num text-xl font-bold" :class="NUMBER_TONE[one.grip]">{{
              lengthText(one.press.value_m, unit, { signed: true })
            }}</span>
            <span class="text-sm text-ink-soft"> ±{{ uncertaintyText(one.press.expanded_m, unit) }}</span>
            <span class="block text-sm" :class="STATE_TONE[one.grip]">{{ GRIP[one.grip] }}</span>
          </td>
          <td class="px-2 py-2">
            <svg v-legible viewBox="0 0 160 18" class="h-4 w-40" aria-hidden="true">
              <rect x="0" y="2" :width="wide(one.by_press_n)" height="13" class="fill-part" opacity="0.55" />
              <rect
                v-if="one.by_clamp_n"
                :x="wide(one.by_press_n)"
                y="2"
                :width="wide(one.by_clamp_n)"
                height="13"
                class="fill-ink"
              />
              <path
                v-if="view.drag_n !== null"
                :d="`M${wide(view.drag_n)} 0V18`"
                class="stroke-act"
                stroke-width="3"
              />
            </svg>
            <span class="flex items-center gap-1 whitespace-nowrap">
              <StateGate v-if="one.holds !== 'not measured'" :state="one.holds" />
              <template v-if="one.holds === 'not measured'">not known</template>
              <template v-else
                ><b class="num">{{ kn(one.by_press_n + (one.by_clamp_n ?? 0)) }}</b>
                <span class="text-sm text-ink-soft">±{{ kn(one.within_n) }}</span></template
              >
            </span>
          </td>
          <td
            v-if="view.moments.some((row) => row.gap !== null)"
            class="num px-2 py-2"
            :class="NUMBER_TONE[one.gap_state]"
          >
            <template v-if="one.gap !== null && one.gap.value_m < GAP_COARSE"
              >{{ lengthText(one.gap.value_m, unit, { signed: true }) }}
              <span class="text-sm font-normal text-ink-soft"
                >±{{ uncertaintyText(one.gap.expanded_m, unit) }}</span
              ></template
            >
            <template v-else>wide</template>
          </td>
          <td class="num px-2 py-2">
            <b>{{ lengthText(height(one).value_m, unit, { signed: true }) }}</b>
            <span class="text-sm text-ink-soft"> ±{{ uncertaintyText(height(one).expanded_m, unit) }}</span>
            <span v-if="one.height.value_m < -2e-6" class="block text-sm text-unsure"
              >sunk {{ lengthText(-one.height.value_m, unit) }}</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1 flex flex-wrap gap-x-5 text-sm text-ink-soft">
      <span><i class="mr-1 inline-block h-3 w-4 bg-part opacity-55"></i>press, at the least friction</span>
      <span><i class="mr-1 inline-block h-3 w-4 bg-ink"></i>clamp</span>
      <span><i class="mr-1 inline-block h-3 w-1 bg-act"></i>drag</span>
      <span>cold again it must come back to what it stood, held down until then: read it</span>
    </p>
  </div>
</template>
