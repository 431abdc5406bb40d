<script setup lang="ts">
import { ask } from '@/api/ask'
import { listCards } from '@/api/generated'
import { whenText } from '@/shared/format/time'
import { useLoaded } from '@/shared/state/useLoaded'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

const { data: cards, refusal } = useLoaded(() => ask(listCards()))
</script>

<template>
  <main class="mx-auto w-full max-w-5xl px-5 py-4">
    <div class="flex items-center justify-between">
      <h1 class="text-xl">Spec cards</h1>
      <RouterLink to="/cards/new" class="act inline-flex items-center">Write a new card</RouterLink>
    </div>
    <RefusalNote :refusal="refusal" />
    <p v-if="cards?.length === 0" class="py-4 text-lg">
      No card yet. A card holds what the engine's book asks for, each limit with its page.
    </p>
    <ul>
      <li
        v-for="one in cards ?? []"
        :key="one.version.spec_card_id"
        class="flex flex-wrap items-center gap-x-4 border-b border-rule"
      >
        <RouterLink
          :to="{ name: 'card', params: { card: one.version.spec_card_id } }"
          class="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-6 py-3 hover:bg-sheet"
        >
          <b class="text-lg">{{ one.name }}</b>
          <span class="text-ink-soft"
            >{{ one.engine }} · {{ one.layout.arrangement }}, {{ one.layout.holes }} holes</span
          >
          <span class="ml-auto text-sm text-ink-soft">
            version {{ one.version.version }} · {{ one.version.saved_by }}
            {{ whenText(one.version.saved_at) }}
          </span>
        </RouterLink>
        <RouterLink
          class="quiet inline-flex items-center text-sm"
          :aria-label="`Copy ${one.name}`"
          :to="{ name: 'card', params: { card: 'new' }, query: { from: one.version.spec_card_id } }"
          >Copy</RouterLink
        >
      </li>
    </ul>
  </main>
</template>
