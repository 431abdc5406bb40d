<script setup lang="ts">
import { computed, onMounted, provide, watch } from 'vue'
import { useRoute } from 'vue-router'

import { whenText } from '@/shared/format/time'
import { JOB, useJobLoading } from '@/shared/state/job'
import { unit, unitOfJob, welcome } from '@/shared/state/preferences'
import { useNarrow } from '@/shared/state/useNarrow'
import { nameJob } from '@/shared/state/whereTo'
import { UNDO, useUndo } from '@/shared/state/useUndo'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import UndoButton from '@/shared/ui/UndoButton.vue'
import UndoNote from '@/shared/ui/UndoNote.vue'

import JobChips from './JobChips.vue'
import RouteRule from './RouteRule.vue'
import WelcomeNote from './WelcomeNote.vue'

/** What all views of one job share: its name above, its route, its block kept fresh. */
const route = useRoute()
const job = useJobLoading(String(route.params['job']))
provide(JOB, job)
const isNarrow = useNarrow()
const undo = useUndo(job)
provide(UNDO, undo)
/** The block and the benches show it where the hand is. */
const hasOwnUndo = computed(() =>
  ['block', 'bench', 'survey', 'pull', 'proof', 'honing'].includes(String(route.name)),
)
const hasUndo = computed(
  () => undo.next.value !== null || undo.said.value !== '' || undo.refusal.value !== null,
)
onMounted(() => void job.reload())
const { block, refusal, seenAt } = job
watch(
  () => block.value?.job.name,
  (name) => name && nameJob(name, route),
)
const stop = watch(block, (now) => {
  if (!now) return
  unit.value = unitOfJob.value[job.jobId] ?? (now.card.unit === 'inch' ? 'thou' : 'µm')
  stop()
})
</script>

<template>
  <Teleport v-if="!route.meta['full']" defer to="#header-job">
    <JobChips v-if="block" :block="block" />
  </Teleport>
  <RouteRule v-if="block && !isNarrow && !route.meta['full'] && route.name !== 'route'" :block="block" />
  <WelcomeNote v-if="block?.job.invented && welcome === 'shown' && route.name === 'block'" :block="block" />
  <p v-if="seenAt" class="no-print bg-act-wash px-5 pb-2">
    This is the block as it was last seen, {{ whenText(new Date(seenAt).toISOString()) }}.
  </p>
  <div v-if="block && !hasOwnUndo && hasUndo" class="no-print flex items-center gap-4 px-5 pt-2">
    <UndoNote class="min-w-0 flex-1" :undo="undo" />
    <UndoButton :undo="undo" @undo="undo.undo()" />
  </div>
  <div v-if="refusal" class="px-5 py-2">
    <RefusalNote :refusal="refusal" />
    <RouterLink v-if="!block" to="/" class="link">To the floor: all jobs</RouterLink>
  </div>
  <RouterView v-if="block" />
  <p v-else-if="!refusal" class="p-8 text-ink-soft">Loading the block …</p>
</template>
