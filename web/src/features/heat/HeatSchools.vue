<script setup lang="ts">
import type { HeatPlanView } from '@/api/generated'

import { span } from './chart'

/** Both schools of getting a liner in, with what each risks here. */
defineProps<{ view: HeatPlanView; held: number }>()
const kn = (newtons: number | undefined) => ((newtons ?? 0) / 1000).toFixed(1)
</script>

<template>
  <section class="grid gap-3" aria-label="Both schools">
    <div
      v-for="side in view.sides"
      :key="side.name"
      class="border-l-4 pl-3"
      :class="side.is_followed ? 'border-act' : 'border-rule'"
    >
      <h2 class="font-bold first-letter:uppercase">
        {{ side.name }}<span v-if="side.is_followed" class="ml-2 text-sm font-normal text-act">this job</span>
      </h2>
      <p class="text-sm">{{ side.reason }}</p>
      <p v-if="side.name === 'heat and cold'" class="text-sm text-ink-soft">
        Held down about {{ span(held) }}, to within 5 K of the room, then read cold.
      </p>
      <p v-else-if="view.cold_force_n.length" class="text-sm text-ink-soft">
        As it is, the pull ends at about <b class="num">{{ kn(view.cold_force_n[1]) }}</b> kN ({{
          kn(view.cold_force_n[0])
        }}
        to {{ kn(view.cold_force_n[2]) }}).
      </p>
    </div>
    <p class="text-sm text-ink-soft">What would settle it: {{ view.settled_by }}</p>
  </section>
</template>
