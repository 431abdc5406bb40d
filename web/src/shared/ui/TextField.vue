<script setup lang="ts">
import { computed, inject, ref, useId } from 'vue'

import type { ReadingBody } from '@/api/generated'
import { bareWords } from '@/shared/format/bareUnit'
import { useUnderstood } from '@/shared/state/useUnderstood'

import SourceBadge from './SourceBadge.vue'
import { NO_PROBLEMS, problemAt, PROBLEMS } from './problems'

/** One labelled field; what is wrong with it stands below it. */
const props = defineProps<{
  label: string
  path?: string
  hint?: string
  unit?: string
  hideLabel?: boolean
  long?: boolean
  /** What is typed is shown to nobody. */
  secret?: boolean
  whole?: boolean
  list?: boolean
  /** In a narrow column what is wrong runs on below its neighbours. */
  wideNote?: boolean
  /** The field takes a length: the unit of a bare number. What is typed is read back in both units. */
  bare?: ReadingBody['bare_unit']
  /** What is filled in from common practice: it says so until it is replaced. */
  usual?: string | number
  /** Said of a length beside the field, such as per side. */
  side?: string
}>()
const model = defineModel<string | number | null>({ required: true })
const id = useId()
const problems = inject(PROBLEMS, ref(NO_PROBLEMS))
const problem = computed(() => problemAt(problems.value, props.path, props.list))
const understood = useUnderstood(
  () => (props.bare && model.value ? `${model.value}${props.side ?? ''}` : ''),
  () => null,
  () => props.bare ?? 'mm',
)
const note = computed(() => {
  if (problem.value) return problem.value
  const readBack = understood.value && `is ${understood.value}`
  const isSaid = props.unit !== undefined || props.wideNote
  const bare = props.bare && !readBack && !isSaid ? `a bare number is ${bareWords(props.bare)}` : ''
  return [readBack || bare, readBack ? '' : props.hint].filter(Boolean).join('; ')
})
</script>

<template>
  <div>
    <label :for="id" class="block text-sm text-ink-soft" :class="hideLabel && 'sr-only'">
      {{ label }}<span v-if="unit"> [{{ unit }}]</span
      ><SourceBadge
        v-if="usual !== undefined && String(model) === String(usual)"
        class="ml-2"
        status="common practice"
      />
    </label>
    <textarea
      v-if="long"
      :id="id"
      v-model="model"
      rows="2"
      class="field"
      :aria-invalid="problem !== ''"
      :aria-describedby="note ? `${id}-note` : undefined"
    />
    <input
      v-else
      :id="id"
      v-model="model"
      :type="secret ? 'password' : 'text'"
      :inputmode="whole ? 'numeric' : undefined"
      :autocomplete="secret ? 'current-password' : 'off'"
      class="field"
      :aria-invalid="problem !== ''"
      :aria-describedby="note ? `${id}-note` : undefined"
    />
    <p
      v-if="note"
      :id="`${id}-note`"
      class="text-sm"
      :class="[problem ? 'text-out' : 'text-ink-soft', wideNote && 'w-max max-w-[44rem]']"
    >
      {{ note }}
    </p>
  </div>
</template>
