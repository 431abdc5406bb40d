<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { ref, watch } from 'vue'

import { ask } from '@/api/ask'
import { type CaseView, listCases } from '@/api/generated'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'

import CaseCard from './CaseCard.vue'

/** What did not add up once and what it was: found again by words here, and by its pattern on the block it is like. */
const words = ref('')
const asked = refDebounced(words, 250)
const {
  data: cases,
  refusal,
  load,
} = useLoaded<CaseView[]>(() => ask(listCases({ query: { words: asked.value } })))
watch(asked, () => void load())
</script>

<template>
  <main class="mx-auto w-full max-w-6xl px-5 py-4">
    <ShopNav />
    <h1 class="text-xl">Cases</h1>
    <div class="mt-2 grid gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,8fr)_minmax(0,4fr)]">
      <section aria-label="Cases of the shop">
        <TextField v-model="words" label="In words, such as: one hole low" class="max-w-xl" />
        <RefusalNote v-if="!cases" :refusal="refusal" />
        <CaseCard v-for="one in cases ?? []" :key="one.case_id" :one="one" />
        <p v-if="cases && !cases.length" class="mt-3 text-ink-soft">
          {{
            asked.trim()
              ? 'No case answers these words.'
              : 'No case yet: once a check has found what did not add up on a block, keep it there.'
          }}
        </p>
      </section>
      <p class="text-ink-soft">
        A case keeps how it showed hole by hole, what was tried in vain, what it was and what found it. On a
        block that does not add up, those that lie alike stand below its causes. Which causes and checks are
        known stands under
        <RouterLink class="link" :to="{ name: 'known-causes' }">causes and checks</RouterLink>.
      </p>
    </div>
  </main>
</template>
