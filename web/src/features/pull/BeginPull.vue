<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { listPressTools, type PressToolView, type PullPageView, type Slides } from '@/api/generated'
import { people } from '@/shared/state/people'
import HoldReason from '@/shared/ui/HoldReason.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'

import { forceText } from './words'
import type { PullNow } from './usePull'

/** Which liner, with what, on what it slides, and who does what; then the pull begins. */
const props = defineProps<{ now: PullNow; page: PullPageView; liners: string[]; chosen: string | null }>()
const tools = ref<PressToolView[]>([])
const liner = ref(props.chosen ?? props.liners[0] ?? '')
const tool = ref('')
const slides = ref<Slides>('oiled')
const from = ref('')
const cranks = ref('')
const watches = ref('')
const reason = ref('')
onMounted(async () => {
  tools.value = await ask(listPressTools()).catch(() => [])
  tool.value = (tools.value.find((one) => one.turn_m !== null) ?? tools.value[0])?.name ?? ''
})
watch(
  () => props.liners,
  (offered) => {
    if (!offered.includes(liner.value)) liner.value = props.chosen ?? offered[0] ?? ''
  },
)
const names = computed(() => people.value.map((one) => one.name))
const SLIDES: readonly Slides[] = ['oiled', 'dry', 'compound']
const begin = () =>
  props.now.begin({
    liner_mark: liner.value,
    tool: tool.value,
    slides: slides.value,
    stop: props.page.stop,
    cranks: cranks.value,
    watches: watches.value,
    from_depth: from.value,
    hold_reason: reason.value,
  })
</script>

<template>
  <div class="grid max-w-2xl gap-3 p-5">
    <h1 class="text-2xl">Pull a liner into hole {{ page.hole }}</h1>
    <div class="grid gap-3 sm:grid-cols-2">
      <label class="grid gap-1"
        >Liner
        <select v-model="liner" class="field">
          <option v-for="one in liners" :key="one" :value="one">{{ one }}</option>
        </select>
      </label>
      <label class="grid gap-1"
        >With
        <select v-model="tool" class="field">
          <option v-for="one in tools" :key="one.name" :value="one.name">
            {{ one.name }}, gives {{ forceText(one.capacity_n) }} kN
          </option>
        </select>
      </label>
      <fieldset class="grid gap-1">
        <legend>It slides</legend>
        <div class="flex">
          <button
            v-for="one in SLIDES"
            :key="one"
            type="button"
            class="min-h-11 flex-1 border px-3"
            :class="one === slides ? 'border-ink bg-ink font-bold text-paper' : 'border-rule bg-sheet'"
            :aria-pressed="one === slides"
            @click="slides = one"
          >
            {{ one }}
          </button>
        </div>
      </fieldset>
      <TextField
        v-model="from"
        label="Flange to ledge now"
        unit="mm"
        path="from_depth"
        hint="its length where empty"
      />
      <label class="grid gap-1"
        >Who cranks
        <select v-model="cranks" class="field">
          <option value="">–</option>
          <option v-for="one in names" :key="one" :value="one">{{ one }}</option>
        </select>
      </label>
      <label class="grid gap-1"
        >Who watches
        <select v-model="watches" class="field">
          <option value="">–</option>
          <option v-for="one in names" :key="one" :value="one">{{ one }}</option>
        </select>
      </label>
    </div>
    <p class="text-ink-soft">
      At the ledge: <b>{{ page.stop }}</b><template v-if="page.stop === 'hold under load' && page.dwell_kn"
        >, {{ page.dwell_kn }} kN for {{ page.dwell_min ?? '…' }} min</template
      >. Seven things are looked at before the first turn.
    </p>
    <p v-for="line in page.cautions" :key="line" class="caution">
      {{ line }} Local rules and licensed practice come first.
    </p>
    <button
      type="button"
      class="act justify-self-start text-lg"
      :disabled="now.busy.value || !liner || !tool"
      @click="begin"
    >
      Begin the pull
    </button>
    <HoldReason v-model="reason" :refusal="now.refusal.value" @pass="begin" />
    <RefusalNote v-if="now.refusal.value?.code !== 'hold point'" :refusal="now.refusal.value" />
    <p v-if="!liners.length" class="text-unsure">
      No liner of this job is free: draw one, or add it under Liners.
    </p>
  </div>
</template>
