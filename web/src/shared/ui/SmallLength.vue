<script setup lang="ts">
import { computed } from 'vue'

import { lengthText, otherSmall, smallText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** A small length with its uncertainty; the other unit on hover. */
const props = withDefaults(
  defineProps<{
    metres: number
    expanded?: number | null
    limits?: readonly (number | null)[]
    signed?: boolean
    withUnit?: boolean
  }>(),
  { expanded: null, limits: () => [], signed: true, withUnit: false },
)
const number = computed(() =>
  lengthText(props.metres, unit.value, { signed: props.signed, limits: props.limits }),
)
const other = computed(() =>
  smallText(props.metres, props.expanded, otherSmall(unit.value), { limits: props.limits }),
)
</script>

<template>
  <span class="whitespace-nowrap" :title="other"
    ><span class="num">{{ number }}</span
    ><span v-if="expanded !== null" class="num ml-1 font-normal">±{{ uncertaintyText(expanded, unit) }}</span
    ><template v-if="withUnit">&nbsp;{{ unit }}</template></span
  >
</template>
