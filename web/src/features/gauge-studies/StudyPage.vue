<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { computed, onBeforeUnmount, ref } from 'vue'
import { useRoute } from 'vue-router'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  adoptGaugeStudy,
  type Cell,
  placeStudyTip,
  readGaugeStudy,
  type StudyView,
  takeStudyReading,
} from '@/api/generated'
import { bareFor } from '@/shared/format/bareUnit'
import { newId } from '@/shared/newId'
import { onChange } from '@/shared/state/link'
import { personId, unit } from '@/shared/state/preferences'
import { tell } from '@/shared/state/readBack'
import { useGaugeValue } from '@/shared/state/useGaugeValue'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalChoices from '@/shared/ui/RefusalChoices.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import { isTyping } from '@/shared/ui/typing'

import StudyResult from './StudyResult.vue'

/** One study: whose turn it is and which part, blind; then what was found. */
const route = useRoute()
const path = { gauge_study_id: String(route.params['study']) }
const { data, refusal, load } = useLoaded(() => ask(readGaugeStudy({ path })))
onBeforeUnmount(onChange((changed) => void (changed === null && load())))
const typed = ref('')
const taken = ref('')
const wrong = ref<Refusal | null>(null)
const again = ref<Cell | null>(null)
let unsent = { key: '', id: '' }
let busy = false

const cell = computed(() => again.value ?? data.value?.next_cell ?? null)
/** Parts are called by letters: a number would be read as a size. */
const letter = (part: number) => String.fromCharCode(65 + part)
const person = (now: StudyView, at: Cell) => now.people[at.place]?.name ?? ''

/** A part is read with the pedal where the gauge talks; what it says is not shown, its own dial is. */
const { gauge, live, trouble } = useGaugeValue(
  () => (cell.value && data.value ? data.value.gauge.gauge_id : null),
  // The whole cell, not its part alone: where the next person holds the same part, what was heard before counts no more.
  () => cell.value,
  (_, at) => ask(placeStudyTip({ path, body: { part: at.part } })),
)
const talks = computed(() => gauge.value !== null)
const said = computed(() => {
  if (!live.value) return ''
  return (data.value?.gauge_is_rocked ? gauge.value?.rocked?.text : gauge.value?.text) ?? ''
})
function takeFromGauge(): void {
  if (said.value) void take(said.value)
  else if (talks.value) {
    taken.value = `not taken: ${trouble.value || 'nothing was heard'}`
    tell(taken.value, false)
  }
}
onKeyStroke([' ', 'PageDown', 'F8'], (event) => {
  if (!cell.value || isTyping(event) || event.ctrlKey || event.metaKey) return
  event.preventDefault()
  takeFromGauge()
})

const bare = computed(() => bareFor(data.value?.reads_sizes ?? false, unit.value))

async function take(text = typed.value, confirmed = false): Promise<void> {
  const at = cell.value
  if (!at || busy) return
  busy = true
  taken.value = ''
  const key = JSON.stringify([at, text, confirmed])
  if (unsent.key !== key) unsent = { key, id: newId() }
  try {
    const body = { ...at, reading_id: unsent.id, text, confirmed, bare_unit: bare.value }
    data.value = await ask(takeStudyReading({ path, body }))
    taken.value = `part ${letter(at.part)} is read`
    tell(taken.value, true)
    typed.value = ''
    wrong.value = null
    again.value = null
  } catch (error) {
    wrong.value = asRefusal(error)
    tell(wrong.value.message, false)
    if (wrong.value.code === 'stale') await load()
  } finally {
    busy = false
  }
}
async function adopt(): Promise<void> {
  try {
    const gauge = await ask(adoptGaugeStudy({ path, body: { person_id: personId.value } }))
    taken.value = `Version ${gauge.version} of ${gauge.name} repeats as this study found it.`
    await load()
  } catch (error) {
    wrong.value = asRefusal(error)
  }
}
</script>

<template>
  <main class="mx-auto w-full max-w-[1400px] px-5 py-3">
    <ShopNav />
    <RefusalNote :refusal="refusal" />
    <template v-if="data">
      <h1 class="pt-4 text-xl">{{ data.gauge.name }}: {{ data.what }}</h1>
      <p class="text-ink-soft">
        {{ data.parts }} parts, {{ data.people.map((one) => one.name).join(' and ') }},
        {{ data.trials }} trials each<template v-if="data.tolerance_typed"
          >, window {{ data.tolerance_typed }}</template
        >
      </p>
      <section v-if="cell" class="mt-4 grid max-w-3xl gap-3" aria-label="Now">
        <div
          class="h-3 w-full bg-iron"
          role="progressbar"
          :aria-valuenow="data.read"
          :aria-valuemax="data.of"
          aria-label="Read so far"
        >
          <div class="h-3 bg-part" :style="{ width: `${(100 * data.read) / data.of}%` }" />
        </div>
        <p class="text-2xl">
          <b>{{ person(data, cell) }}</b> reads part
          <b class="num text-6xl text-act">{{ letter(cell.part) }}</b>
        </p>
        <p class="text-ink-soft">
          {{ data.read }} of {{ data.of }} read, trial {{ cell.trial + 1 }}. Zero the gauge as always; nobody
          looks at what was read before.
        </p>
        <div v-if="talks" class="flex flex-wrap items-center gap-4">
          <button
            type="button"
            class="act min-h-16 px-12 text-2xl"
            :disabled="!said"
            title="Space, or the pedal"
            @click="takeFromGauge"
          >
            Take
          </button>
          <span role="status" aria-label="Gauge" :class="said ? 'text-ink-soft' : 'font-bold text-unsure'">{{
            said ? `${data.gauge.name} is heard` : trouble || 'Rock it: the size is where it turns.'
          }}</span>
        </div>
        <form class="flex flex-wrap items-center gap-3" @submit.prevent="take()">
          <label for="study-typed" class="sr-only">What the gauge shows</label>
          <input
            id="study-typed"
            v-model="typed"
            class="num min-h-14 w-56 border-2 border-ink bg-sheet px-3 text-3xl"
            autocomplete="off"
            maxlength="60"
            :placeholder="bare"
          />
          <button
            type="submit"
            class="min-h-14 text-xl"
            :class="talks ? 'quiet' : 'act'"
            :disabled="typed.trim() === ''"
          >
            {{ talks ? 'Take typed' : 'Take' }}
          </button>
          <button
            v-if="data.last_cell && !again"
            type="button"
            class="quiet min-h-14"
            @click="again = data.last_cell"
          >
            Read the last one again
          </button>
          <button v-if="again" type="button" class="quiet min-h-14" @click="again = null">
            Go on instead
          </button>
        </form>
        <p class="min-h-6" role="status" aria-label="Taken">{{ taken }}</p>
      </section>
      <RefusalChoices
        class="text-lg"
        :refusal="wrong"
        @answer="(one) => take(one.text || typed, one.confirm)"
      />
      <template v-if="data.result && !again">
        <StudyResult :study="data" :result="data.result" />
        <p class="flex flex-wrap items-center gap-4 pt-3">
          <button v-if="!data.adopted" type="button" class="act" @click="adopt">
            Make it the gauge's repeatability
          </button>
          <span v-else class="text-in">The gauge has taken it over.</span>
          <span role="status" aria-label="Taken">{{ taken }}</span>
        </p>
      </template>
    </template>
    <p v-else-if="!refusal" class="py-4 text-ink-soft">Loading the study …</p>
  </main>
</template>
