<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { compareParts, type LandLinerView, type PartsComparedView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

/** An old part against a new one, land by land: what is not read on both stays unknown. */
const props = defineProps<{ liners: readonly LandLinerView[] }>()
const choices = computed(() =>
  props.liners.map((one) => ({ value: one.liner_id, label: `${one.mark}, ${one.make} · ${one.job}` })),
)
const old = ref(props.liners[0]?.liner_id ?? '')
const fresh = ref(props.liners[1]?.liner_id ?? '')
const {
  data: found,
  refusal,
  load,
} = useLoaded<PartsComparedView>(() => ask(compareParts({ query: { old: old.value, new: fresh.value } })))
watch([old, fresh], () => void load())
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: true })
const STATES = { true: 'alike', false: 'differs', null: 'unknown' } as const
const state = (alike: boolean | null) => STATES[`${alike}`]
</script>

<template>
  <section class="grid content-start gap-3" aria-label="Old against new">
    <h2 class="text-lg font-bold">Old against new</h2>
    <ChoiceField v-model="old" label="The old part" :choices="choices" />
    <ChoiceField v-model="fresh" label="The new part" :choices="choices" />
    <RefusalNote v-if="!found" :refusal="refusal" />
    <template v-else>
      <table class="w-full text-left" aria-label="Land by land">
        <thead class="text-sm text-ink-soft">
          <tr class="border-b border-ink">
            <th scope="col" class="py-1 font-normal">land</th>
            <th scope="col" class="text-right font-normal">new less old [{{ unit }}]</th>
            <th scope="col" class="pl-4 font-normal">so they are</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in found.lands" :key="one.land" class="border-b border-rule">
            <th scope="row" class="py-1.5 font-normal">{{ one.land }}</th>
            <td class="num text-right">
              <template v-if="one.difference"
                >{{ small(one.difference.value_m) }} ±{{
                  lengthText(one.difference.expanded_m, unit, { digits: unit === 'thou' ? 1 : 0 })
                }}</template
              >
              <span v-else class="text-sm text-ink-soft">{{
                one.old || one.new ? 'read on one only' : 'not read'
              }}</span>
            </td>
            <td
              class="pl-4 font-bold"
              :class="one.alike === null ? 'text-unsure' : one.alike ? 'text-in' : 'text-out'"
            >
              {{ state(one.alike) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p class="text-lg font-bold">{{ found.verdict }}</p>
    </template>
  </section>
</template>
