<script setup lang="ts">
import { computed } from 'vue'

import type { SwapsView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Holes by liners: what was read of each pair, what hole and liner leave over, and their effects at the edges. */
const props = defineProps<{ view: SwapsView }>()
const digits = computed(() => (unit.value === 'thou' ? 1 : 0))
const small = (metres: number, signed = true) =>
  lengthText(metres, unit.value, { digits: digits.value, signed })
const marks = computed(() => props.view.liners.map((one) => one.name))
const of = (hole: string, liner: string) =>
  props.view.fittings.filter((one) => one.hole === hole && one.liner === liner)
/** A liner that shares no hole with another: nothing tells what of its reading is its own. */
const alone = (group: number) => props.view.liners.filter((one) => one.group === group).length < 2
const wanted = (hole: string, liner: string) =>
  props.view.proposed?.puts.some((one) => one.hole === hole && one.liner === liner) ?? false
</script>

<template>
  <section class="relative overflow-x-auto" aria-label="Every fitting that was read">
    <table class="w-full text-center">
      <caption class="sr-only">
        Holes by liners
      </caption>
      <thead>
        <tr class="border-b-2 border-ink">
          <th scope="col" class="py-1 text-left text-sm font-normal text-ink-soft">hole</th>
          <th v-for="mark in marks" :key="mark" scope="col" class="text-lg">{{ mark }}</th>
          <th scope="col" class="text-right text-sm font-normal text-ink-soft">the hole gives</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="hole in view.holes" :key="hole.name" class="border-b border-rule">
          <th scope="row" class="py-2 pr-3 text-left text-lg">{{ hole.name }}</th>
          <td
            v-for="mark in marks"
            :key="mark"
            class="h-16 px-1"
            :class="wanted(hole.name, mark) ? 'bg-act-wash' : ''"
          >
            <span
              v-for="(one, at) in of(hole.name, mark)"
              :key="at"
              class="grid leading-tight"
              :class="one.is_in ? 'font-bold' : 'text-ink-soft'"
              ><span class="num text-lg">{{ small(one.read.value_m) }}</span
              ><span v-if="one.shims_m" class="text-sm">on {{ small(one.shims_m, false) }}</span
              ><span
                v-if="!alone(hole.group)"
                class="num text-sm"
                :class="one.fits ? 'text-ink-soft' : 'text-unsure'"
                ><span aria-hidden="true">{{ one.fits ? '=' : '≠' }}</span>
                {{ small(one.left_over.value_m) }}</span
              ></span
            >
            <span v-if="!of(hole.name, mark).length && wanted(hole.name, mark)" class="text-sm text-act"
              >next</span
            >
          </td>
          <td class="text-right">
            <b class="num text-lg">{{ small(hole.value.value_m) }}</b>
            <span class="num ml-1 text-sm text-ink-soft">±{{ small(hole.value.expanded_m, false) }}</span>
          </td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <th scope="row" class="py-2 text-left text-sm font-normal text-ink-soft">the liner adds</th>
          <td v-for="one in view.liners" :key="one.name" class="leading-tight">
            <span v-if="alone(one.group)" class="text-sm text-ink-soft">alone</span>
            <template v-else
              ><b class="num text-lg">{{ small(one.value.value_m) }}</b
              ><br /><span class="num text-sm text-ink-soft"
                >±{{ small(one.value.expanded_m, false) }}</span
              ></template
            >
          </td>
          <td></td>
        </tr>
      </tfoot>
    </table>
    <p class="mt-1 text-sm text-ink-soft">
      Bold: in the hole now.
      {{ view.freedom ? 'Under a reading: what hole and liner leave over of it. ' : '' }}The liners of a group
      sum to nought; between groups nothing can be told.
    </p>
  </section>
</template>
