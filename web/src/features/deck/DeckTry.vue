<script setup lang="ts">
import { ref } from 'vue'

import type { DeckPlanView } from '@/api/generated'
import { lengthText, SIZE_WITH } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'

/** A cut, a width of land or a volume to try: nothing of it is recorded. */
const props = defineProps<{
  view: DeckPlanView
  load: (asked: { skim: string; land: string; volume: string }) => Promise<void>
}>()
const { refusal, busy, send } = useForm()
const draft = ref({ skim: '', land: '', volume: '' })
const tryIt = () => send(() => props.load({ ...draft.value }))
const size = (metres: number) => lengthText(metres, SIZE_WITH[unit.value])
</script>

<template>
  <section aria-labelledby="try-title">
    <h2 id="try-title" class="text-lg">Try</h2>
    <form class="grid gap-2" aria-label="Try" @submit.prevent="tryIt">
      <TextField v-model="draft.skim" label="Take off" :bare="unit" path="skim" />
      <TextField
        v-model="draft.land"
        label="Sealing land"
        :bare="SIZE_WITH[unit]"
        path="land"
        :hint="`now ${size(view.faces[0]?.land_m ?? 0)}`"
      />
      <TextField
        v-if="view.swept"
        v-model="draft.volume"
        label="A volume wanted"
        path="volume"
        hint="1800 cm³, or 110 cu in"
      />
      <button type="submit" class="act justify-self-start" :disabled="busy">Try it</button>
      <RefusalNote :refusal="refusal" />
    </form>
    <p v-if="view.swept" class="mt-3">
      Swept now
      <b class="num text-lg">{{ Math.round(view.swept.cm3) }}</b> cm³,
      <b class="num text-lg">{{ view.swept.cubic_inches.toFixed(1) }}</b> cu in
    </p>
    <p v-else class="mt-3 text-sm text-ink-soft">
      What it displaces wants the stroke:
      <RouterLink class="link" :to="{ name: 'job-card' }">write it on the card</RouterLink>.
    </p>
    <p v-if="view.wanted" role="status">
      The volume wants a bore of <b class="num text-lg">{{ size(view.wanted.bore_m) }}</b>
      {{ SIZE_WITH[unit] }}: {{ view.wanted.growth_m < 0 ? 'smaller' : 'larger' }} by
      <span class="num">{{ lengthText(Math.abs(view.wanted.growth_m), unit) }}</span> {{ unit
      }}<template v-if="view.wanted.wall_m !== null"
        >, wall left
        <b
          class="num"
          :class="view.least_wall_m !== null && view.wanted.wall_m < view.least_wall_m && 'text-out'"
          >{{ size(view.wanted.wall_m) }}</b
        ></template
      >.
    </p>
  </section>
</template>
