<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core'
import { ref } from 'vue'

import { isTyping } from '@/shared/ui/typing'

import DialPicture from './DialPicture.vue'
import type { DialShown } from './pictures'
import { useRock } from './useRock'

/** The gauge in the bore, tilted by pointer, touch or keys, and its dial. */
const props = defineProps<{ dial: DialShown; canTake: boolean; busy: boolean }>()
const emit = defineEmits<{ take: [tilt: string] }>()
const rock = useRock(() => props.dial)
const stage = ref<HTMLElement>()
const isHeld = ref(false)

function toward(event: PointerEvent): void {
  const box = stage.value?.getBoundingClientRect()
  if (box) rock.push(((event.clientX - box.left) / box.width - 0.5) * 9)
}
function hold(event: PointerEvent): void {
  isHeld.value = true
  stage.value?.setPointerCapture(event.pointerId)
  toward(event)
}
/** The slide moves by itself with the arrows; anything else that is typed into keeps its keys. */
const isSlide = (event: KeyboardEvent) => (event.target as HTMLElement).matches('[type="range"]')
function take(): void {
  if (props.canTake && !props.busy) emit('take', rock.now())
}
onKeyStroke(['ArrowLeft', 'ArrowRight'], (event) => {
  if (!props.dial.rock || isTyping(event)) return
  event.preventDefault()
  rock.step((event.key === 'ArrowRight' ? 1 : -1) * (event.shiftKey ? 10 : 1))
})
onKeyStroke(' ', (event) => {
  if (!props.dial.rock || event.target instanceof HTMLButtonElement) return
  if (isTyping(event) && !isSlide(event)) return
  event.preventDefault()
  take()
})
</script>

<template>
  <div class="grid items-center gap-x-5 gap-y-2 sm:grid-cols-[minmax(0,13fr)_minmax(0,6fr)]">
    <DialPicture
      class="max-sm:mx-auto max-sm:max-w-[17rem]"
      :dial="dial"
      :value="rock.value.value"
      :words="rock.words.value"
    />
    <div v-if="dial.rock">
      <h2 class="font-bold max-sm:sr-only">Rocking</h2>
      <div
        ref="stage"
        class="touch-none rounded-sm select-none"
        @pointerdown="hold"
        @pointermove="isHeld && toward($event)"
        @pointerup="isHeld = false"
        @pointercancel="isHeld = false"
      >
        <svg
          viewBox="0 0 220 260"
          class="mx-auto block max-h-[38vh] w-full max-w-[16rem] max-sm:max-h-[18vh]"
          aria-hidden="true"
        >
          <path d="M0 30H34V250H0zM186 30H220V250H186z" class="fill-iron" />
          <path d="M34 30V250M186 30V250" class="stroke-ink" stroke-width="2" />
          <path d="M34 176H186" class="stroke-ink-soft" stroke-width="1.4" stroke-dasharray="4 4" />
          <g :transform="`rotate(${rock.tilt.value * 3.2} 110 176)`">
            <rect
              x="101"
              y="20"
              width="18"
              height="146"
              class="fill-part-wash stroke-part"
              stroke-width="2"
            />
            <rect
              x="35"
              y="166"
              width="150"
              height="20"
              class="fill-part-wash stroke-part"
              stroke-width="2"
            />
            <circle cx="42" cy="176" r="7" class="fill-part" />
            <circle cx="178" cy="176" r="7" class="fill-part" />
          </g>
        </svg>
      </div>
      <label class="block text-sm text-ink-soft"
        >Tilt: drag, slide, or ← →
        <input
          type="range"
          min="-4"
          max="4"
          step="0.1"
          :value="rock.pushed.value"
          class="mt-1 block min-h-8 w-full accent-(--color-act)"
          @input="rock.push(Number(($event.target as HTMLInputElement).value))"
        />
      </label>
      <button
        type="button"
        class="act mt-2 min-h-14 w-full text-lg"
        :disabled="busy || !canTake"
        @click="take"
      >
        Take what it shows <span class="num text-sm font-normal">space</span>
      </button>
    </div>
  </div>
</template>
