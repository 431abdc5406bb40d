<script setup lang="ts">
import { computed } from 'vue'

import type { MatchingView } from '@/api/generated'
import { lengthText } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

/** Every liner in every hole: how it would stand, whether that is in, and the one that goes there framed. */
const props = defineProps<{ view: MatchingView }>()
const marks = computed(() => {
  const all = (props.view.holes[0]?.ways ?? []).map((one) => one.liner)
  return all.sort((a, b) => (props.view.flanges_m[a] ?? 0) - (props.view.flanges_m[b] ?? 0))
})
const isPress = computed(() => props.view.of === 'press')
const small = (metres: number) =>
  lengthText(metres, unit.value, { digits: unit.value === 'thou' ? 1 : 0, signed: !isPress.value })
const size = (metres: number | null | undefined) =>
  metres === null || metres === undefined
    ? ''
    : lengthText(metres, unit.value === 'thou' ? 'inch' : 'mm', { digits: unit.value === 'thou' ? 4 : 3 })
const grade = (part: string) => props.view.grades[part] ?? ''
const TONE = { in: 'text-part', out: 'text-out', 'cannot tell': 'text-unsure' } as Record<string, string>
const SIGN = { in: '●', out: '◆', 'cannot tell': '○' } as Record<string, string>
</script>

<template>
  <section class="relative overflow-x-auto" aria-label="Every liner in every hole">
    <table class="w-full text-center">
      <caption class="sr-only">
        Every liner in every hole
      </caption>
      <thead>
        <tr>
          <th scope="col" class="pr-2 text-left text-sm font-normal text-ink-soft">hole</th>
          <th v-if="!isPress" scope="col" class="text-left text-sm font-normal text-ink-soft">ledge</th>
          <th v-for="mark in marks" :key="mark" scope="col">
            {{ mark
            }}<span v-if="grade(`liner-${mark}`)" class="ml-1 text-sm font-normal text-ink-soft uppercase"
              ><span class="sr-only">stamped </span>{{ grade(`liner-${mark}`) }}</span
            >
          </th>
        </tr>
        <tr v-if="!isPress" class="border-b-2 border-ink text-sm text-ink-soft">
          <td colspan="2" class="text-left">flange</td>
          <td v-for="mark in marks" :key="mark" class="num">{{ size(view.flanges_m[mark]) }}</td>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="hole in view.holes"
          :key="hole.hole"
          class="border-b border-rule"
          :class="hole.shim_m !== null || hole.state === 'out' ? 'bg-act-wash' : ''"
        >
          <th scope="row" class="text-left text-lg">
            {{ hole.hole
            }}<span v-if="grade(`hole-${hole.hole}`)" class="ml-1 text-sm font-normal text-ink-soft uppercase"
              ><span class="sr-only">stamped </span>{{ grade(`hole-${hole.hole}`) }}</span
            >
          </th>
          <td v-if="!isPress" class="num text-left">{{ size(hole.ledge_m) }}</td>
          <td v-for="mark in marks" :key="mark" class="p-0.5">
            <span
              v-for="way in hole.ways.filter((one) => one.liner === mark)"
              :key="way.liner"
              class="num inline-flex items-center justify-center gap-1 rounded border-2 px-1 leading-tight"
              :class="[
                TONE[way.state] ?? 'text-ink',
                hole.then === mark ? 'border-part font-bold' : 'border-transparent',
              ]"
              ><span aria-hidden="true" class="text-xs">{{ SIGN[way.state] ?? '' }}</span
              ><span>{{ small(way.value.value_m) }}</span
              ><span v-if="way.honing_m > 0" class="text-sm text-act">hone {{ small(way.honing_m) }}</span
              ><span class="sr-only"
                >{{ way.state }}{{ hole.then === mark ? ', goes there' : '' }}</span
              ></span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p class="mt-1 text-sm text-ink-soft">
      {{ unit }}{{ isPress ? ' of press, on the diameter' : ', thinnest flange first' }} · ● in · ○ cannot
      tell · ◆ out · framed: goes there
    </p>
  </section>
</template>
