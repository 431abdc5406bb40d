<script setup lang="ts">
import { computed } from 'vue'

import type { RunView } from '@/api/generated'
import { exactSmall } from '@/shared/format/lengths'
import { unit } from '@/shared/state/preferences'

import CollarPicture from './CollarPicture.vue'
import type { RunNow } from './useRun'

/** The one key: the pass that is turning is done. Beside it the collar, undo, a pause. */
const props = defineProps<{ now: RunNow; run: RunView; paused: boolean }>()
const emit = defineEmits<{ finish: []; pause: [] }>()
const turning = computed(() => props.run.count + 1)
const isOver = computed(() => props.run.state === 'count is done')
const canTurn = computed(
  () => !isOver.value && props.run.state !== 'checks before the first pass' && !props.paused,
)
/** Gap that is left between the collars: a feeler one hundredth thicker does not enter. */
const gap = computed(() => props.run.to_go_m)
</script>

<template>
  <footer
    class="sticky bottom-0 grid grid-cols-[2fr_1fr] gap-x-3 gap-y-2 border-t-2 border-ink bg-sheet px-4 py-2 md:grid-cols-[auto_minmax(0,1fr)_auto_auto] md:items-center"
  >
    <div class="hidden items-center gap-3 md:flex">
      <CollarPicture />
      <p class="max-w-64 leading-snug">
        <b class="text-lg text-in">Collar locked</b> for pass {{ turning }}<br />
        gap to the stop <b class="num">{{ exactSmall(gap, unit) }} {{ unit }}</b
        ><br />
        <span class="text-sm text-ink-soft">a feeler of that enters: the count is right</span>
      </p>
    </div>
    <button
      v-if="!isOver"
      type="button"
      class="act col-span-2 min-h-16 text-2xl md:col-span-1"
      :disabled="!canTurn"
      title="Space, Enter, or the pedal"
      @click="now.endPass()"
    >
      Pass {{ turning }} done
    </button>
    <button
      v-else
      type="button"
      class="act col-span-2 min-h-16 text-2xl md:col-span-1"
      :disabled="now.busy.value"
      @click="emit('finish')"
    >
      Stop reached: finish
    </button>
    <button
      type="button"
      class="quiet min-h-14 text-lg"
      :disabled="run.count === 0 || now.busy.value"
      title="Ctrl+Z"
      @click="now.undoPass()"
    >
      Undo pass {{ run.count || '' }}
    </button>
    <button type="button" class="quiet min-h-14 text-lg" @click="emit('pause')">
      {{ paused ? 'Go on' : 'Stop' }}
    </button>
  </footer>
</template>
