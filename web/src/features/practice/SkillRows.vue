<script setup lang="ts">
import StateGate from '@/shared/charts/StateGate.vue'
import type { SkillView } from '@/api/generated'

/** What is sure and what not yet: the last eight results, a full square for right, an open one for missed. */
defineProps<{ skills: SkillView[] }>()
</script>

<template>
  <ul>
    <li
      v-for="skill in skills"
      :key="skill.name"
      class="flex items-center gap-2 border-b border-rule py-1 text-sm"
    >
      <StateGate
        v-if="skill.last.length"
        :state="skill.is_sure ? 'in' : skill.last.at(-1) ? 'cannot tell' : 'out'"
      />
      <span v-else class="inline-block w-[26px] text-center text-ink-soft" aria-hidden="true">| |</span>
      <span class="min-w-0 flex-1">{{ skill.name }}</span>
      <span
        v-if="skill.last.length"
        class="flex gap-1"
        role="img"
        :aria-label="`${skill.last.filter(Boolean).length} of ${skill.last.length} right, ${skill.is_sure ? 'sure' : 'not yet sure'}`"
      >
        <span
          v-for="(right, index) in skill.last"
          :key="index"
          class="h-3 w-2.5 border-2"
          :class="right ? 'border-part bg-part' : 'border-out'"
        />
      </span>
      <span v-else class="text-ink-soft">not tried</span>
    </li>
  </ul>
</template>
