<script setup lang="ts">
import { computed } from 'vue'

import { lengthText, otherSmall, smallText, uncertaintyText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import { useGaugeDigits } from '@/shared/state/useGaugeDigits'

/** A small length with its uncertainty; the other unit on hover. */
const props = withDefaults(
  defineProps<{
    metres: number
    expanded?: number | null
    limits?: readonly (number | null)[]
    signed?: boolean
    withUnit?: boolean
    /** The other unit stands beside it, where the value matters. */
    both?: boolean
  }>(),
  { expanded: null, limits: () => [], signed: true, withUnit: false, both: false },
)
const digits = useGaugeDigits()
const number = computed(() =>
  lengthText(props.metres, unit.value, {
    signed: props.signed,
    limits: props.limits,
    digits: digits.small('protrusion'),
  }),
)
const other = computed(() =>
  smallText(props.metres, props.expanded, otherSmall(unit.value), { limits: props.limits }),
)
</script>

<template>
  <span :title="other"
    ><span class="whitespace-nowrap"
      ><span class="num">{{ number }}</span
      ><span v-if="expanded !== null" class="num ml-1 font-normal"
        >±{{ uncertaintyText(expanded, unit) }}</span
      ><template v-if="withUnit">&nbsp;{{ unit }}</template></span
    ><span v-if="both" class="num text-sm font-normal whitespace-nowrap text-ink-soft">
      ({{ other }})</span
    ></span
  >
</template>
