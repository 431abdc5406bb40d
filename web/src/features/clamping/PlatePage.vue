<script setup lang="ts">
import { computed, ref } from 'vue'

import { torqueText } from '@/shared/format/others'
import { useJob } from '@/shared/state/job'
import { useJobUndo } from '@/shared/state/useUndo'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import HolesHeld from './HolesHeld.vue'
import TightenForm from './TightenForm.vue'
import TightenNow from './TightenNow.vue'
import { useClamping } from './useClamping'

/** Torque plate and main caps: tightened bolt by bolt as the head will be, each bore judged under it and read free. */
const job = useJob()
const undo = useJobUndo()
const now = useClamping(job, undo)
const { view } = now
const isAdding = ref(false)
/** What is on now, and what came off last: older ones stand in the proof. */
const shown = computed(() => {
  const all = [...(view.value?.tightenings ?? [])].reverse()
  return all.filter((one, at) => one.state !== 'taken off' || at === 0)
})
const rest = computed(() => (view.value?.tightenings.length ?? 0) - shown.value.length)
const isForm = computed(() => isAdding.value || shown.value.every((one) => one.state === 'taken off'))
const quantity = computed(() => (view.value?.quantity ?? '').replace(' ', '-'))
const holes = computed(() => (job.block.value?.holes ?? []).map((one) => one.number))
</script>

<template>
  <main class="grid w-full grid-cols-[minmax(0,1fr)] content-start gap-3 px-5 py-3">
    <header class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
      <h1 class="text-xl">Plate and caps</h1>
      <p v-if="view && (view.build.torque_nm !== null || view.build.fasteners)">
        in the build:
        <b v-if="view.build.torque_nm !== null">{{ torqueText(view.build.torque_nm) }}</b><template
          v-if="view.build.fasteners"
          >, {{ view.build.fasteners }}</template
        ><template v-if="view.build.gasket">, {{ view.build.gasket }}</template>
      </p>
      <p v-else-if="view" class="text-unsure">
        The card does not say how the head is held:
        <RouterLink class="link" :to="{ name: 'job-card' }">gasket, fasteners and torque go on it</RouterLink
        >.
      </p>
    </header>
    <RefusalNote v-if="!view" :refusal="now.missing.value" />
    <template v-if="view">
      <TightenNow v-for="one in shown" :key="one.tightening_id" :now="now" :one="one" :build="view.build" />
      <section v-if="isForm" class="border-t-2 border-ink pt-2" aria-labelledby="tighten-title">
        <h2 id="tighten-title" class="text-lg">Tighten</h2>
        <TightenForm :now="now" :build="view.build" :job-id="job.jobId" :holes="holes" />
      </section>
      <p class="flex flex-wrap gap-x-5 gap-y-1">
        <button v-if="!isForm" type="button" class="quiet" @click="isAdding = true">
          Tighten something else
        </button>
        <span v-if="rest" class="text-ink-soft">{{ rest }} more, taken off, in the proof.</span>
        <RouterLink class="link" :to="{ name: 'fixtures' }">Plates and fixtures of the shop</RouterLink>
      </p>
      <p class="caution">{{ view.caution.join(' ') }}</p>
      <section class="border-t-2 border-ink pt-2" aria-labelledby="held-title">
        <h2 id="held-title" class="text-lg">Each bore, clamped and free</h2>
        <HolesHeld :job-id="job.jobId" :quantity="quantity" />
      </section>
      <p class="text-sm text-ink-soft">{{ view.plate_advice }} {{ view.caps_advice }}</p>
    </template>
  </main>
</template>
