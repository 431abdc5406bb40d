<script setup lang="ts">
import type { WaitView } from '@/api/generated'

/** What the work waits for, and what it waited for: since when, how long so far, till when. */
defineProps<{ waits: WaitView[] }>()
const emit = defineEmits<{ here: [waitId: string] }>()

const dayOf = (iso: string) =>
  new Date(iso).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short' })
const lasted = (hours: number) => (hours < 24 ? `${hours.toFixed(1)} h` : `${(hours / 24).toFixed(0)} d`)
function till(wait: WaitView): string {
  if (wait.ended) return `${dayOf(wait.ended)}${wait.end_words ? `, ${wait.end_words}` : ''}`
  return wait.expected ? `due ${dayOf(wait.expected)}` : 'nobody knows'
}
</script>

<template>
  <section aria-label="What waits" class="min-w-0">
    <table class="w-full text-left">
      <thead class="border-b border-ink">
        <tr class="text-sm text-ink-soft">
          <th class="text-lg text-ink">What waits</th>
          <th class="pr-3 font-normal whitespace-nowrap">since when</th>
          <th class="pr-3 text-right font-normal whitespace-nowrap">so far</th>
          <th class="font-normal">till</th>
        </tr>
      </thead>
      <tbody>
        <tr v-if="waits.length === 0">
          <td colspan="4" class="py-2 text-ink-soft">Nothing was waited for.</td>
        </tr>
        <tr
          v-for="wait in waits"
          :key="wait.wait_id"
          class="border-b border-rule align-baseline"
          :class="wait.ended ? 'text-ink-soft' : ''"
        >
          <td class="py-1 pr-3">
            <b :class="wait.ended ? 'font-normal' : ''">{{ wait.cause }}: {{ wait.words }}</b>
            <span class="block text-sm text-ink-soft">
              {{ wait.title }}<template v-if="wait.hole !== null">, hole {{ wait.hole }}</template>
            </span>
          </td>
          <td class="pr-3 whitespace-nowrap" :class="wait.ended ? '' : 'text-unsure'">
            {{ dayOf(wait.since) }}
          </td>
          <td class="num pr-3 text-right" :class="wait.ended ? '' : 'font-bold text-unsure'">
            {{ lasted(wait.lasted_h) }}
          </td>
          <td>
            {{ till(wait) }}
            <button
              v-if="!wait.ended"
              type="button"
              class="link ml-2 min-h-8"
              @click="emit('here', wait.wait_id)"
            >
              It is here
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
