<script setup lang="ts">
import { computed } from 'vue'

import type { RunMarkKind, RunView } from '@/api/generated'
import { torqueText } from '@/shared/format/others'
import { exactSmall } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** What is looked at before the first pass, one after the other. */
const props = defineProps<{ run: RunView; busy: boolean }>()
const emit = defineEmits<{ check: [kind: RunMarkKind] }>()
/** What the card of the cutter says of each. */
const how = computed<Partial<Record<RunMarkKind, string>>>(() => {
  const card = props.run.cutter
  const set = exactSmall(props.run.depth_m - props.run.start_m, unit.value)
  return {
    'oil drops in the tool': card?.oil ?? '',
    'bolts by hand, then torque while turning': card?.torque_nm ? torqueText(card.torque_nm) : '',
    'collar locked': card?.collars ?? '',
    'stop set': `${set} ${unit.value} from touch-off${card?.stop_set ? `: ${card.stop_set}` : ''}`,
  }
})
const next = computed(() => props.run.checks.find((one) => !one.done_by)?.kind ?? null)
</script>

<template>
  <ol class="grid gap-2" aria-label="Checks before the first pass">
    <li v-for="(one, at) in run.checks" :key="one.kind">
      <button
        type="button"
        class="flex min-h-14 w-full items-center gap-4 border px-4 text-left text-lg"
        :class="one.done_by ? 'border-in' : one.kind === next ? 'border-act bg-act-wash' : 'border-rule'"
        :disabled="busy || one.done_by !== ''"
        @click="emit('check', one.kind)"
      >
        <b class="num w-6">{{ one.done_by ? '✓' : at + 1 }}</b>
        <span class="flex-1 leading-tight"
          >{{ one.kind
          }}<span v-if="how[one.kind]" class="block text-sm text-ink-soft">{{ how[one.kind] }}</span></span
        >
        <span class="text-sm text-ink-soft">{{
          one.done_by || (one.kind === next ? 'tap when done' : '')
        }}</span>
      </button>
    </li>
    <li v-if="run.cutter && !run.cutter.suits" class="text-unsure">
      The card of this cutter does not name a bore of this size: look whether it is the right one.
    </li>
  </ol>
</template>
