<script setup lang="ts">
import { computed } from 'vue'

import type { ExpectedBoreView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The bore that the press will leave: what it closes in is stock for the hone. */
const props = defineProps<{ bore: ExpectedBoreView }>()
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
const sizes = computed(() => props.bore.levels.map((one) => one.bore.value_m))
const left = computed(() => props.bore.levels.flatMap((one) => (one.to_hone ? [one.to_hone.value_m] : [])))
const small = (metres: number) => lengthText(metres, unit.value)
</script>

<template>
  <span>
    Pressed in, its bore is expected {{ size(Math.min(...sizes)) }} to {{ size(Math.max(...sizes)) }}
    {{ SIZE_WITH[unit]
    }}<template v-if="bore.finished_m !== null && left.length"
      >: the hone then finds {{ small(Math.min(...left)) }} to {{ small(Math.max(...left)) }} {{ unit }} to
      {{ size(bore.finished_m) }}</template
    ><template v-if="!bore.inside_was_read">, by the drawing: nobody read its inside</template>.
  </span>
</template>
