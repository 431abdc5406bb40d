<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { whenText } from '@/shared/format/time'
import { downSince, linkUp, shutOut } from '@/shared/state/link'
import { answerHeld, dropHeld, held, waiting, waitingWords } from '@/shared/state/outbox'

import RefusalChoices from './RefusalChoices.vue'

/** Said on every view while the link is down or readings wait: what is kept here, and what must not be done. */
const canReload = window.isSecureContext
const route = useRoute()
/** Whoever stands at the door already is told there. */
const isAtDoor = computed(() => ['pair', 'sign-in', 'read'].includes(String(route.name)))
const shown = computed(() => {
  if (route.name === 'read') return false
  if (waiting.value.length > 0) return true
  return shutOut.value ? !isAtDoor.value : !linkUp.value
})
</script>

<template>
  <section
    v-if="shown"
    aria-label="Link"
    class="no-print sticky top-0 z-30 border-b-2 border-unsure bg-act-wash px-5 py-2"
  >
    <div role="status" class="flex flex-wrap gap-x-4">
      <b v-if="shutOut" class="text-unsure"
        >{{
          shutOut === 'not paired' ? 'This device is not paired with the shop.' : 'Nobody is signed in here.'
        }}
        <RouterLink
          v-if="!isAtDoor"
          class="link"
          :to="{ name: shutOut === 'not paired' ? 'pair' : 'sign-in', query: { to: route.fullPath } }"
          >{{ shutOut === 'not paired' ? 'Let it in' : 'Sign in' }}</RouterLink
        ></b
      >
      <b v-else-if="!linkUp" class="text-unsure"
        >Out of reach{{ downSince ? ` since ${whenText(new Date(downSince).toISOString())}` : '' }}</b
      >
      <span v-if="waiting.length > 0">
        {{ waiting.length === 1 ? 'One reading waits' : `${waiting.length} readings wait` }} here{{
          shutOut === 'not paired' ? ' until it is' : shutOut ? ' until somebody is' : ''
        }}:
      </span>
      <span v-else-if="!shutOut">Readings taken now wait here and are sent in order.</span>
      <b v-for="one in waiting" :key="one.order" class="num" data-waiting>{{ waitingWords(one) }}</b>
      <span v-if="!linkUp && !shutOut && !canReload" class="w-full">
        Do not reload or close this page before the link is back: over the shop's network it cannot be loaded
        without it.
      </span>
    </div>
    <div v-if="held" class="mt-1 flex flex-wrap items-center gap-3">
      <RefusalChoices :refusal="held" @answer="answerHeld" @read-before="answerHeld" />
      <button type="button" class="quiet" @click="dropHeld">Leave it out</button>
    </div>
  </section>
</template>
