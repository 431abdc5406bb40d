<script setup lang="ts">
import type { LinerView } from '@/api/generated'

import FlangeField from './FlangeField.vue'

defineProps<{ liner: LinerView; lands: string[]; wanted: boolean }>()
</script>

<template>
  <tr class="border-b border-rule align-top" :class="wanted && 'bg-act-wash'">
    <th scope="row" class="py-2.5 pl-2 text-left">{{ liner.liner.mark }}</th>
    <td class="py-2.5">{{ liner.liner.make }}</td>
    <td class="py-2.5">{{ liner.liner.batch }}</td>
    <td class="py-2.5">{{ liner.hole ?? 'on the bench' }}</td>
    <td v-for="(land, index) in lands" :key="land" class="py-1.5 pl-4">
      <FlangeField
        :mark="liner.liner.mark"
        :land="land"
        :flange="liner.flange.find((one) => one.land === land) ?? null"
        :wanted="wanted && index === 0"
      />
    </td>
  </tr>
</template>
