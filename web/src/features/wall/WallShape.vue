<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'

import type { Shown } from './shown'
import { type Mesh, meshOf, stillOf } from './shape'

/** The wall as a body, many times magnified, to be turned; a still picture where there is no WebGL. */
const props = defineProps<{ shown: Shown; bore: number }>()
const host = ref<HTMLDivElement | null>(null)
const isStill = ref(false)
const mesh = computed(() => (props.shown.field ? meshOf(props.shown.field, props.shown, props.bore) : null))
const still = computed(() => (mesh.value ? stillOf(mesh.value) : []))
let stage: { show: (body: Mesh) => void; close: () => void } | null = null

async function open(): Promise<void> {
  if (!host.value || !mesh.value) return
  try {
    // Only who looks at the body loads the library for it.
    const { stageIn } = await import('./stage')
    stage = stageIn(host.value)
    stage.show(mesh.value)
  } catch {
    isStill.value = true
  }
}
onMounted(open)
watch(mesh, (now) => now && stage?.show(now))
onBeforeUnmount(() => stage?.close())
</script>

<template>
  <figure>
    <div
      v-show="!isStill"
      ref="host"
      class="h-[470px] w-full touch-none"
      role="img"
      :aria-label="`The bore as a body, shape magnified ${mesh?.times ?? 1} times`"
    />
    <svg
      v-if="isStill"
      v-legible
      viewBox="0 0 480 470"
      class="h-[470px] w-full"
      role="img"
      aria-label="The bore as a body"
    >
      <polygon
        v-for="(face, at) in still"
        :key="at"
        :points="face.points"
        :fill="face.fill"
        stroke="var(--color-paper)"
        stroke-width="0.4"
      />
    </svg>
    <figcaption class="text-sm text-ink-soft">
      {{ mesh ? `Shape × ${mesh.times}; ` : ''
      }}{{
        isStill
          ? 'a still picture: this browser draws no bodies.'
          : 'drag to turn it; the front of the engine is to the left.'
      }}
    </figcaption>
  </figure>
</template>
