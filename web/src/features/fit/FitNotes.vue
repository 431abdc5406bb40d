<script setup lang="ts">
import { computed } from 'vue'

import type { FitView } from '@/api/generated'
import { lengthText, SIZE_WITH, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import PhraseText from '@/shared/ui/PhraseText.vue'

import { stressText } from './fit'
import SizingRows from './SizingRows.vue'

/** What was taken for granted, what the walls bear, how everything was read, and what sizing would leave. */
const props = defineProps<{ fit: FitView }>()
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
const ends = computed(() =>
  Object.entries(props.fit.walls?.otherwise ?? {})
    .map(([name, share]) => `${name} ${share >= 1 ? '+' : '−'}${Math.abs((share - 1) * 100).toFixed(0)} %`)
    .join(', '),
)
const asIs = computed(() => props.fit.schools.find((one) => one.name === 'as it is') ?? null)
const block = computed(() => Math.max(...(asIs.value?.effects.map((one) => one.hoop_block_pa) ?? [0])))
const grows = computed(() => Math.max(...(asIs.value?.effects.map((one) => one.boss_grows_m) ?? [0])))
const pressure = computed(() => Math.max(...(asIs.value?.effects.map((one) => one.pressure_pa) ?? [0])))
</script>

<template>
  <section
    class="grid gap-x-8 gap-y-2 border-t border-rule pt-2 text-sm lg:grid-cols-3"
    aria-label="What was taken"
  >
    <div>
      <h2 class="text-base">Read</h2>
      <p>Bore: {{ fit.bore_read }}.</p>
      <p>Outside of {{ fit.liner }}: {{ fit.outside_read }}.</p>
      <p v-if="fit.barrel_m">
        Barrel of the liner
        <span class="num"
          >{{ lengthText(fit.barrel_m.value_m, unit, { signed: true }) }} ±{{
            uncertaintyText(fit.barrel_m.expanded_m, unit)
          }}
          {{ unit }}</span
        >
        fatter in the middle.
      </p>
      <p v-for="one in fit.stamps" :key="one.part">
        Stamped on the {{ one.part }}: <b>{{ one.letters }}</b>.
      </p>
      <p v-if="fit.left_out.length" class="text-unsure">
        The liner was not read near {{ fit.left_out.join(', ') }}: nothing is told there.
      </p>
      <p v-if="fit.doubtful" class="text-unsure">
        A zero was found moved on these readings: the ± carries it, and no verdict stands on them.
      </p>
      <p class="text-ink-soft">
        The liner hangs from the deck with its mark at 12 h, so axes are those of the hole.
      </p>
    </div>
    <div v-if="fit.walls">
      <h2 class="text-base">Walls</h2>
      <p v-for="one in fit.walls.walls" :key="one.what" :class="one.is_thin && 'font-bold text-out'">
        {{ one.what }} {{ size(one.wall_m) }} a side<template v-if="one.least_m !== null"
          >, least {{ size(one.least_m) }}{{ one.is_thin ? ': too thin' : '' }}</template
        ><template v-else>: the card sets no least</template>
      </p>
      <p>
        Pressure {{ (pressure / 1e6).toFixed(1) }} MPa at the most, block pulled {{ stressText(block) }} MPa.
        It grows the block by {{ lengthText(grows, unit) }} {{ unit }} outside.
        {{ fit.walls.liner_material }} in {{ fit.walls.block_material }}, {{ fit.walls.source }}.
      </p>
      <p v-if="fit.walls.roughness_known">
        <span class="num">{{ lengthText(fit.walls.lost_m, unit) }} {{ unit }}</span> is lost to the peaks that
        are pressed flat (DIN 7190-1, from memory).
      </p>
      <p v-else class="text-ink-soft">Roughness is not on the card: nothing is taken off for it.</p>
    </div>
    <div>
      <h2 class="text-base">Taken</h2>
      <p v-if="fit.walls">
        The block’s wall is taken as a ring of {{ size(fit.walls.outside_m) }} outside, the ends free: plane
        stress. Otherwise the pressure is {{ ends }}.
      </p>
      <p v-if="fit.wanted">Press wanted: {{ fit.wanted.source || 'no source' }}, {{ fit.wanted.status }}.</p>
      <p v-if="fit.stripes"><PhraseText :phrase="fit.stripes" /></p>
      <SizingRows v-if="fit.sizings && !fit.is_home" class="mt-2" :sizings="fit.sizings" />
    </div>
  </section>
</template>
