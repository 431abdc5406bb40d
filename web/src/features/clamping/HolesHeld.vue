<script setup lang="ts">
import { onBeforeUnmount } from 'vue'

import { ask } from '@/api/ask'
import { type HoleHeldView, readHolesHeld, type StatedView } from '@/api/generated'
import { lengthText, uncertaintyText } from '@/shared/format/lengths'
import { onChange } from '@/shared/state/link'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import StateGate from '@/shared/charts/StateGate.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

/** Each bore under the plate, judged, and without it, recorded. */
const props = defineProps<{ jobId: string; quantity: string }>()
const {
  data: holes,
  refusal,
  load,
} = useLoaded<HoleHeldView[]>(() => ask(readHolesHeld({ path: { job_id: props.jobId } })))
onBeforeUnmount(onChange((changed) => (changed === null || changed === props.jobId ? load() : undefined)))
const small = (one: StatedView | null) =>
  one === null
    ? '–'
    : `${lengthText(one.value_m, unit.value)} ±${uncertaintyText(one.expanded_m, unit.value)}`
</script>

<template>
  <RefusalNote v-if="!holes" :refusal="refusal" />
  <table v-else class="w-full border-collapse text-left">
    <caption class="sr-only">
      Out of round on the diameter, under the plate and free
    </caption>
    <thead class="text-sm text-ink-soft">
      <tr class="border-b border-ink">
        <th scope="col" class="py-1 font-normal">hole</th>
        <th scope="col" class="px-2 font-normal">under the plate</th>
        <th scope="col" class="px-2 text-right font-normal">out of round, {{ unit }}</th>
        <th scope="col" class="px-2 text-right font-normal">free, {{ unit }}</th>
        <th scope="col" class="px-2 font-normal max-sm:hidden">what the plate does</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in holes" :key="one.hole" class="border-b border-rule align-baseline">
        <th scope="row" class="py-1.5 text-xl">{{ one.hole }}</th>
        <td class="px-2">
          <span class="flex items-center gap-2"
            ><StateGate :state="one.clamped_state" />
            {{ one.clamped_state === 'not measured' ? one.clamped_reason : one.clamped_state }}</span
          >
        </td>
        <td class="num px-2 text-right text-lg">{{ small(one.clamped) }}</td>
        <td class="num px-2 text-right text-lg">
          {{ small(one.free) }}
        </td>
        <td class="px-2 max-sm:hidden">
          <p v-if="one.size_change && Math.abs(one.size_change.value_m) > one.size_change.expanded_m">
            It {{ one.size_change.value_m < 0 ? 'closes it in' : 'opens it' }} by
            <b class="num">{{ lengthText(Math.abs(one.size_change.value_m), unit) }}</b> ±<span class="num">{{
              uncertaintyText(one.size_change.expanded_m, unit)
            }}</span>
            {{ unit }} on the diameter where most.
          </p>
          <PhraseText v-for="(said, at) in one.says" :key="at" class="block" :phrase="said" />
          <RouterLink
            v-if="!one.free"
            class="link"
            :to="{ name: 'survey', params: { quantity, part: `hole-${one.hole}` } }"
            >Read it {{ one.clamped ? 'without the plate' : '' }}</RouterLink
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>
