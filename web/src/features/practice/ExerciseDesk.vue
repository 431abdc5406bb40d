<script setup lang="ts">
import { computed } from 'vue'

import type { AttemptView, OfferView } from '@/api/generated'
import PhraseText from '@/shared/ui/PhraseText.vue'

import MoveForm from './MoveForm.vue'
import { type DialShown, picturesOf } from './pictures'
import PictureView from './PictureView.vue'
import RockStage from './RockStage.vue'
import type { useAttempt } from './useAttempt'

/** The bench of an exercise: pictures, what may be done, what came of it. */
const props = defineProps<{ view: AttemptView; attempt: ReturnType<typeof useAttempt> }>()
const now = computed(() => props.view.position)
/** A gauge that is rocked takes the tilt from the hand, not from a field. */
const pictures = computed(() => picturesOf(now.value))
const rocked = computed(() =>
  now.value.pictures.find((one): one is DialShown => one.kind === 'dial' && !one.inner),
)
const canTake = computed(() => now.value.offers.some((offer) => offer.name === 'take'))
const offers = computed(() => now.value.offers.filter((offer) => !(rocked.value && offer.name === 'take')))
/** What needs nothing said stands in one row of keys. */
const isPlain = (offer: OfferView) => !offer.fields.length && !offer.caution && !offer.last
const plain = computed(() => offers.value.filter(isPlain))
const asking = computed(() => offers.value.filter((offer) => !isPlain(offer)))
const others = computed(() => pictures.value.filter((one) => one !== rocked.value))
const { seconds, isHeld, form, make } = props.attempt
const busy = computed(() => form.busy.value)
</script>

<template>
  <div class="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
    <section aria-label="What is seen" class="min-w-0">
      <p v-if="!view.judged" class="text-xl font-bold"><PhraseText :phrase="now.headline" /></p>
      <RockStage
        v-if="rocked"
        class="mt-2"
        :dial="rocked"
        :can-take="canTake"
        :busy="busy"
        @take="(tilt) => make('take', { tilt })"
      />
      <div class="mt-3 grid grid-cols-[repeat(auto-fit,minmax(min(20rem,100%),1fr))] content-start gap-5">
        <PictureView v-for="(one, index) in others" :key="index" :picture="one" :seconds="seconds" />
      </div>
      <ol
        v-if="now.said.length"
        class="mt-4 border-t-2 border-ink-soft"
        aria-label="What came of it"
        aria-live="polite"
        reversed
      >
        <li
          v-for="(said, index) in now.said.toReversed()"
          :key="now.said.length - index"
          class="border-b border-rule py-1"
        >
          <PhraseText :phrase="said" />
        </li>
      </ol>
    </section>
    <section aria-label="What you do" class="min-w-0">
      <div v-if="now.rate > 0 && !view.judged" class="mb-2 flex items-center gap-4">
        <span class="num text-2xl font-bold" role="timer">{{ seconds.toFixed(0) }} s</span>
        <button type="button" class="quiet" @click="isHeld = !isHeld">
          {{ isHeld ? 'Let the clock run' : 'Hold the clock' }}
        </button>
        <span v-if="now.rate !== 1" class="text-sm text-ink-soft">{{ now.rate }} times as fast</span>
      </div>
      <dl v-if="now.spent" class="mb-1 flex flex-wrap gap-x-6">
        <div class="flex gap-2">
          <dt class="text-ink-soft">time</dt>
          <dd class="num font-bold">{{ (now.spent.minutes / 60).toFixed(1) }} h</dd>
        </div>
        <div v-if="now.spent.money" class="flex gap-2">
          <dt class="text-ink-soft">money</dt>
          <dd class="num font-bold">{{ now.spent.money.toFixed(0) }}</dd>
        </div>
      </dl>
      <div v-if="plain.length" class="flex flex-wrap gap-2 pb-2">
        <button
          v-for="offer in plain"
          :key="offer.name"
          type="button"
          class="quiet min-h-11 text-left"
          :disabled="busy"
          @click="make(offer.name, {})"
        >
          {{ offer.label }} <span v-if="offer.words" class="text-sm text-ink-soft">{{ offer.words }}</span>
        </button>
      </div>
      <MoveForm
        v-for="offer in asking"
        :key="offer.name"
        :offer="offer"
        :busy="busy"
        :moves="view.moves"
        @make="make"
      />
    </section>
  </div>
</template>
