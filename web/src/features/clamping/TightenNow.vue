<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import type { BuildView, TighteningView } from '@/api/generated'
import { torqueText } from '@/shared/format/others'
import { whenText } from '@/shared/format/time'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import { isTyping, onPedal } from '@/shared/ui/typing'

import BoltsPicture from './BoltsPicture.vue'
import type { ClampingNow } from './useClamping'

/** One tightening: the bolt that is next and its torque, huge; the pedal says that it was turned. */
const props = defineProps<{ now: ClampingNow; one: TighteningView; build: BuildView }>()
const torque = ref('')
const chosen = ref<number | null>(null)
watch(
  () => props.one.marks.length,
  () => (chosen.value = null),
)
const isOn = computed(() => props.one.state === 'being tightened')
const bolt = computed(() => chosen.value ?? props.one.bolt)
const both = computed(() => /^(.*) N·m \((.*) lbf·ft\)$/.exec(torqueText(props.one.torque_nm ?? 0)) ?? [])
const round = computed(() =>
  props.one.is_trial ? 'try each once more' : `round ${props.one.turn} of ${props.one.stages_nm.length}`,
)
async function mark(kind: 'turned' | 'held' | 'moved on'): Promise<void> {
  if (!isOn.value || bolt.value === null || props.now.busy.value) return
  const read = torque.value
  await props.now.turn(props.one.tightening_id, bolt.value, kind, read)
  if (props.now.refusal.value === null) torque.value = ''
}
const act = () => void mark(props.one.is_trial ? 'held' : 'turned')
onPedal(act)
onKeyStroke(['m', 'M'], (event) => {
  if (!isTyping(event) && props.one.is_trial) void mark('moved on')
})
const last = computed(() => props.one.marks.filter((mark) => mark.bolt !== null).at(-1) ?? null)
const title = computed(() => {
  const what = props.one.clamp === 'torque plate' ? 'Torque plate' : 'Main caps'
  return props.one.from_hole === null ? what : `${what}, holes ${props.one.from_hole} to ${props.one.to_hole}`
})
</script>

<template>
  <section class="border-t-2 border-ink pt-2" :aria-label="title">
    <header class="flex flex-wrap items-baseline gap-x-5">
      <h2 class="text-lg">{{ title }}</h2>
      <p v-if="one.fixture" class="text-ink-soft">{{ one.fixture }}</p>
      <p class="text-ink-soft">
        <span class="num">{{ one.stages_nm.join(' · ') }}</span> N·m, begun by {{ one.begun_by }}
      </p>
      <p v-if="one.words" class="text-ink-soft">{{ one.words }}</p>
    </header>
    <p v-if="one.state === 'taken off'">
      {{ one.order.length }} bolts through {{ one.turn }} rounds by {{ last?.noted_by }}, taken off
      {{ whenText(one.marks.at(-1)?.noted_at ?? one.begun_at) }}
    </p>
    <div v-else class="mt-1 grid gap-x-6 gap-y-3 lg:grid-cols-[minmax(0,1fr)_19rem]">
      <BoltsPicture :one="one" :chosen="chosen" @choose="chosen = $event" />
      <div>
        <template v-if="isOn">
          <p class="text-ink-soft" aria-live="polite">
            {{ round }}, {{ one.done.length }} of {{ one.order.length }} done
          </p>
          <p class="text-4xl leading-tight font-bold">Bolt {{ bolt }}</p>
          <p class="leading-none">
            <b class="num text-6xl">{{ both[1] }}</b> <span class="text-xl text-ink-soft">N·m</span>
          </p>
          <p class="num mt-1 text-xl text-ink-soft">{{ both[2] }} <span class="font-sans">lbf·ft</span></p>
          <div class="mt-3 grid grid-cols-2 gap-2">
            <button
              type="button"
              class="act min-h-14"
              :class="!one.is_trial && 'col-span-2'"
              :disabled="now.busy.value"
              @click="act"
            >
              {{ one.is_trial ? 'It held' : 'It clicked' }} <span class="font-normal">(space)</span>
            </button>
            <button
              v-if="one.is_trial"
              type="button"
              class="quiet min-h-14"
              :disabled="now.busy.value"
              @click="mark('moved on')"
            >
              It moved on (M)
            </button>
          </div>
          <label class="mt-2 block text-sm text-ink-soft"
            >or read on a dial
            <input
              v-model="torque"
              class="num ml-1 h-9 w-36 rounded border border-rule bg-sheet px-2 text-ink"
              maxlength="20"
              autocomplete="off"
              placeholder="N·m"
              @keydown.enter="act"
          /></label>
        </template>
        <template v-else>
          <p class="text-4xl leading-tight font-bold">Tight</p>
          <p v-if="last" class="text-ink-soft">
            {{ one.order.length }} bolts, {{ one.turn }} rounds, {{ whenText(last.noted_at) }},
            {{ last.noted_by }}
          </p>
          <button
            type="button"
            class="quiet mt-2 min-h-11"
            :disabled="now.busy.value"
            @click="now.off(one.tightening_id)"
          >
            It came off
          </button>
        </template>
        <ul
          v-if="one.differs.length"
          class="mt-3 border-l-4 border-unsure pl-3 font-bold"
          aria-label="Not as in the build"
        >
          <li v-for="said in one.differs" :key="said" class="first-letter:uppercase">{{ said }}</li>
        </ul>
        <p v-else-if="one.clamp === 'torque plate'" class="mt-3 text-in">
          <template v-if="build.torque_nm !== null"
            >Gasket, fasteners and torque are those of the build.</template
          >
          <template v-else>
            <span class="text-unsure">The card does not say how the head is held in the build.</span>
          </template>
        </p>
        <RefusalNote :refusal="now.refusal.value" />
      </div>
    </div>
  </section>
</template>
