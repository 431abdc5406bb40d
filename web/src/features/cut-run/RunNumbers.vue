<script setup lang="ts">
import type { RunView } from '@/api/generated'
import { exactSmall, lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** The count, huge, and what is still to go by the stop. */
defineProps<{ run: RunView }>()
const size = (metres: number) => `${lengthText(metres, SIZE_WITH[unit.value])} ${SIZE_WITH[unit.value]}`
</script>

<template>
  <div
    class="grid grid-cols-[auto_minmax(0,1fr)_auto] gap-x-3 sm:grid-cols-[auto_auto_minmax(0,1fr)] sm:gap-x-5"
  >
    <p
      class="num text-[6.5rem] leading-[0.85] font-bold lg:text-[13rem]"
      aria-label="Passes done"
      role="status"
    >
      {{ run.count }}
    </p>
    <div class="pb-2 sm:self-end">
      <p class="text-3xl font-bold sm:text-4xl lg:text-6xl">of {{ run.of }}</p>
      <p class="text-ink-soft sm:text-xl">passes done</p>
      <p v-if="run.part_pass_m > 0" class="pt-3">
        last one <b class="num">{{ exactSmall(run.part_pass_m, unit) }} {{ unit }}</b
        >, not {{ exactSmall(run.graduation_m, unit) }}
      </p>
    </div>
    <div class="border-l border-rule pl-3 sm:pl-5">
      <p class="text-sm text-ink-soft sm:text-base">still to go, by the stop</p>
      <p class="whitespace-nowrap">
        <span class="num text-4xl font-bold sm:text-5xl lg:text-7xl">{{
          exactSmall(run.to_go_m, unit)
        }}</span><span class="ml-1 text-xl text-ink-soft sm:text-2xl">{{ unit }}</span>
      </p>
      <div class="max-sm:hidden">
        <p>
          cut
          <b class="num"
            >{{ exactSmall(run.cut_m, unit) }} ±{{ exactSmall(run.cut_within_m, unit) }} {{ unit }}</b
          >
        </p>
        <p>
          now <b class="num">{{ size(run.at_m) }}</b> deep<br /><span class="text-ink-soft">{{
            run.measured_m === null
              ? 'counted, not yet measured'
              : `counted on from ${size(run.measured_m)} measured`
          }}</span>
        </p>
      </div>
    </div>
    <p class="col-span-3 pt-1 sm:hidden">
      cut
      <b class="num">{{ exactSmall(run.cut_m, unit) }} ±{{ exactSmall(run.cut_within_m, unit) }} {{ unit }}</b
      >, now <b class="num">{{ size(run.at_m) }}</b> by
      {{ run.measured_m === null ? 'the count' : 'reading and count' }}
    </p>
  </div>
</template>
