<script setup lang="ts">
import { computed } from 'vue'

import type { CleanUpView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import { plusText, wallsOf } from './ladder'

/** What each step of the ladder leaves, where there is no room for it beside the drawing. */
const props = defineProps<{ view: CleanUpView }>()
const walls = computed(() => wallsOf(props.view))
</script>

<template>
  <ul aria-label="What each step leaves">
    <li
      v-for="one in walls"
      :key="one.step.typed"
      class="grid grid-cols-[4.5rem_minmax(0,1fr)] border-b border-rule py-1"
    >
      <b class="num">{{ plusText(one.step.oversize_m, unit) }}</b>
      <span>
        <template v-if="one.thinnest">
          wall
          <b class="num">{{
            lengthText(one.thinnest.left_m, SIZE_WITH[unit], { digits: unit === 'thou' ? 3 : 2 })
          }}</b><b v-if="one.thinnest.keeps === 'out'" class="text-out"> too thin</b
          ><template v-else-if="one.rebores !== null"
            >, {{ one.rebores }} re-bore{{ one.rebores === 1 ? '' : 's' }} left</template
          >
        </template>
        <template v-else>{{ one.step.had }}</template>
        <span class="text-ink-soft">{{ ` · ${one.step.kind}` }}</span>
      </span>
    </li>
    <li class="py-1 text-sm text-ink-soft">
      drawn: on the drawn centre · best: moved, at most {{ lengthText(view.move_most_m, unit) }}
    </li>
  </ul>
</template>
