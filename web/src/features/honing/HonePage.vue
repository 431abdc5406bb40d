<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'

import type { SurveyView } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { useJobUndo } from '@/shared/state/useUndo'
import BenchHead from '@/shared/ui/BenchHead.vue'
import HoldReason from '@/shared/ui/HoldReason.vue'
import PhraseText from '@/shared/ui/PhraseText.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'
import { isTyping, onPedal } from '@/shared/ui/typing'

import HoneChart from './HoneChart.vue'
import HoneFoot from './HoneFoot.vue'
import HoneNumbers from './HoneNumbers.vue'
import HonePicture from './HonePicture.vue'
import HoneRead from './HoneRead.vue'
import HoneSetup from './HoneSetup.vue'
import HoneStrip from './HoneStrip.vue'
import { useHone } from './useHone'

/** A bore as it is honed, full screen: what is left, when to stop, what comes; read between rounds by the same pedal. */
const job = useJob()
const route = useRoute()
const undo = useJobUndo(() => ({
  hole: Number(route.params['hole']),
  part: now.view.value?.part_key ?? '',
}))
const now = useHone(job, undo)
const { view, refusal } = now
const reason = ref('')
const isSetting = ref(false)
const survey = ref<SurveyView | null>(null)
const reader = ref<{ take: () => void; takeBack: () => Promise<void>; load: () => Promise<void> } | null>(
  null,
)
const foot = ref<{ act: () => void } | null>(null)
const holes = computed(() => job.block.value?.holes ?? [])
const needsSetup = computed(() => view.value?.state === 'set up' || isSetting.value)
watch(
  () => route.fullPath,
  () => {
    isSetting.value = false
    reason.value = ''
    survey.value = null
  },
)
function act(counted: number | null): void {
  if (!view.value || needsSetup.value) return
  if (view.value.state === 'measure') reader.value?.take()
  else if (view.value.state === 'running') void now.stop(counted)
  else if (view.value.state === 'ready') void now.begin(reason.value)
}
/** Readings since the stop come first, then the stop, then that it was begun. */
async function takeBack(): Promise<void> {
  await reader.value?.takeBack()
  await now.load()
}
async function readAll(): Promise<void> {
  await now.load()
}
onPedal(() => foot.value?.act())
onKeyStroke('z', (event) => {
  if ((event.ctrlKey || event.metaKey) && !isTyping(event)) {
    event.preventDefault()
    void takeBack()
  }
})
</script>

<template>
  <main v-if="job.block.value" class="flex min-h-screen flex-1 flex-col">
    <BenchHead
      :to="{ name: 'block', params: { job: job.jobId, lens: 'bore', hole: String(route.params['hole']) } }"
      out="Bores"
      :job="job.block.value.job.name"
      :what="`hone hole ${String(route.params['hole'])}${view?.target ? `, to ${view.target.part}` : ''}`"
      places="Holes"
      short
      :clock="route.params['aim'] === 'sleeve' ? 'hone-block' : 'hone'"
    >
      <RouterLink
        v-for="one in holes"
        :key="one.hole_id"
        :to="{ name: 'honing', params: { ...route.params, hole: String(one.number) } }"
        class="flex min-h-11 min-w-12 items-center justify-center rounded border px-2 max-sm:hidden"
        :class="
          String(one.number) === route.params['hole'] ? 'border-act bg-act-wash font-bold' : 'border-rule'
        "
        :aria-label="`Hole ${one.number}`"
        >{{ one.number }}</RouterLink
      >
    </BenchHead>
    <RefusalNote v-if="!view" class="p-4" :refusal="now.missing.value" />
    <template v-if="view">
      <section
        v-if="view.refused"
        class="m-4 max-w-3xl border-l-4 border-unsure py-1 pl-4"
        aria-label="No size yet"
      >
        <h1 class="text-2xl">Hone hole {{ view.hole }}: no size yet</h1>
        <p class="text-lg"><PhraseText :phrase="view.refused" /></p>
        <p class="mt-1 flex gap-5">
          <RouterLink
            v-if="view.aim === 'piston'"
            class="link"
            :to="{ name: 'survey', params: { quantity: 'piston-skirt', part: `piston-${view.hole}` } }"
            >Read the piston</RouterLink
          ><RouterLink v-else class="link" :to="{ name: 'liners' }">Liners</RouterLink
          ><RouterLink class="link" :to="{ name: 'job-card' }">The card</RouterLink>
        </p>
      </section>
      <template v-else>
        <HoneStrip
          :view="view"
          :survey="survey"
          :job-id="job.jobId"
          @changed="(reader?.load(), now.load())"
        />
        <HoneSetup
          v-if="needsSetup"
          :key="`${view.hole} ${view.aim}`"
          :now="now"
          :view="view"
          :job-id="job.jobId"
          @kept="isSetting = false"
        />
        <div
          v-show="!needsSetup"
          class="grid flex-1 grid-cols-[minmax(0,1fr)] lg:grid-cols-[24rem_minmax(0,1fr)_21rem] lg:divide-x lg:divide-rule"
        >
          <section class="min-w-0 px-4 py-3" aria-label="Left">
            <h1 class="sr-only">Hone hole {{ view.hole }}</h1>
            <HoneRead
              :key="`${view.hole} ${view.quantity}`"
              ref="reader"
              :view="view"
              @read="readAll"
              @survey="survey = $event"
            />
            <HoneNumbers
              v-if="view.state !== 'measure'"
              :view="view"
              :strokes="now.strokes.value"
              :warm-m="survey?.warmth.effect_m ?? null"
            />
            <HoldReason v-model="reason" :refusal="refusal" @pass="now.begin(reason)" />
            <RefusalNote v-if="refusal?.code !== 'hold point'" :refusal="refusal" />
            <UndoNote :undo="undo" />
          </section>
          <section class="flex min-w-0 flex-col px-4 py-3">
            <HoneChart class="lg:max-h-[27.5rem]" :view="view" :strokes="now.strokes.value" />
            <div class="mt-1 grid gap-1">
              <p v-for="(said, at) in view.says" :key="at" class="font-bold">
                <PhraseText :phrase="said" />
              </p>
              <p class="caution">{{ view.cautions.join(' ') }}</p>
            </div>
          </section>
          <section v-if="view.setting && view.target" class="min-w-0 px-4 py-3">
            <HonePicture
              :setting="view.setting"
              :bore-m="view.target.finished.value_m"
              :clamped="view.clamped"
            />
            <p class="text-sm text-ink-soft">
              {{ view.setting.method === 'dry' ? 'dry' : 'in oil' }}, {{ view.setting.drive }}.
              <button type="button" class="link" @click="isSetting = true">Set it otherwise</button>
            </p>
          </section>
        </div>
        <HoneFoot
          v-if="!needsSetup"
          ref="foot"
          :now="now"
          :view="view"
          :can-take="reader !== null"
          @act="act"
          @undo="takeBack"
        />
      </template>
    </template>
  </main>
</template>
