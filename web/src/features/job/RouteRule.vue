<script setup lang="ts">
import { computed } from 'vue'

import { ask, asRefusal } from '@/api/ask'
import { type BlockView, markStage, type StageView } from '@/api/generated'
import { personId } from '@/shared/state/preferences'

/** The route as a steel rule: its ticks are planned quarter hours, its stages stand in order. */
const props = defineProps<{ block: BlockView }>()
const emit = defineEmits<{ marked: [] }>()

const TICKS_AN_HOUR = 4
const next = computed(() => props.block.stages.find((stage) => !stage.done))

function ticksOf(stage: StageView): number[] {
  const count = Math.max(1, Math.round(Number(stage.planned_hours) * TICKS_AN_HOUR))
  return Array.from({ length: count }, (_, index) => index)
}

function words(stage: StageView): string {
  if (stage.done) return 'done'
  return stage.waits_for || `${Number(stage.planned_hours)} h`
}

async function toggle(stage: StageView): Promise<void> {
  await ask(
    markStage({ path: { stage_id: stage.stage_id }, body: { done: !stage.done, person_id: personId.value } }),
  ).catch(asRefusal)
  emit('marked')
}
</script>

<template>
  <ol class="no-print flex overflow-x-auto border-b border-rule bg-iron/60 px-5" aria-label="Route">
    <li
      v-for="stage in block.stages"
      :key="stage.stage_id"
      class="min-w-28 flex-1"
      :style="{ flexGrow: 2 + Number(stage.planned_hours) }"
    >
      <button
        type="button"
        class="block h-full w-full text-left"
        :title="`${stage.name}: ${Number(stage.planned_hours)} h planned. ${stage.done ? 'Mark it open again' : 'Mark it done'}`"
        :aria-pressed="stage.done"
        @click="toggle(stage)"
      >
        <span
          class="block pt-1 text-sm font-bold"
          :class="stage.done ? 'text-ink-soft' : stage === next ? 'text-act' : ''"
        >
          {{ stage.name }}
        </span>
        <span class="block truncate pr-2 text-xs" :class="stage.waits_for ? 'text-unsure' : 'text-ink-soft'">
          {{ words(stage) }}
        </span>
        <svg
          class="block h-3 w-full"
          preserveAspectRatio="none"
          :viewBox="`0 0 ${ticksOf(stage).length} 10`"
          aria-hidden="true"
        >
          <line
            v-for="tick in ticksOf(stage)"
            :key="tick"
            :x1="tick"
            :x2="tick"
            :y1="tick === 0 ? 0 : tick % TICKS_AN_HOUR === 0 ? 3 : 6"
            y2="10"
            vector-effect="non-scaling-stroke"
            :class="stage === next && tick === 0 ? 'stroke-act' : 'stroke-ink-soft'"
            :stroke-width="stage === next && tick === 0 ? 4 : 1"
          />
        </svg>
      </button>
    </li>
  </ol>
</template>
