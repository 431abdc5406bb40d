<script setup lang="ts">
import { computed } from 'vue'

import { bareUnit, bareWords } from '@/shared/format/bareUnit'
import { ask } from '@/api/ask'
import { listFeatures } from '@/api/generated'
import { useJob } from '@/shared/state/job'
import { unit } from '@/shared/state/preferences'
import { catalogue } from '@/shared/state/catalogue'
import { useLoaded } from '@/shared/state/useLoaded'
import ChoiceField from '@/shared/ui/ChoiceField.vue'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import StateChanges from '@/shared/ui/StateChanges.vue'
import WaitingNote from '@/shared/ui/WaitingNote.vue'
import { useForm } from '@/shared/ui/useForm'

import ImportedRows from './ImportedRows.vue'
import { useReadingsFile } from './useReadingsFile'

/** Readings from a file: every row is shown with what becomes of it before anything is taken. */
const job = useJob()
const form = useForm()
const { refusal, busy } = form
const { name, quantity, asWritten, report, waiting, taken, good, bad, here, choose, take } = useReadingsFile(
  job,
  form,
)
const always = computed(() => catalogue.value.filter((one) => !one.is_surveyed).map((one) => one.quantity))
/** Everything that this block can have measured. */
const features = useLoaded(() => ask(listFeatures({ path: { job_id: job.jobId } })))
const quantities = computed(() =>
  [...always.value, ...(features.data.value?.features ?? []).map((one) => one.quantity)].map((value) => ({
    value,
    label: value,
  })),
)
const bareSaid = computed(
  () =>
    `${bareWords(bareUnit('protrusion', unit.value))}, depths and thicknesses ${bareWords(bareUnit('counterbore depth', unit.value))}`,
)
const many = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`
</script>

<template>
  <main
    class="mx-auto grid w-full max-w-6xl content-start gap-x-10 gap-y-4 px-5 py-4 lg:grid-cols-[22rem_1fr]"
  >
    <section aria-label="File" class="grid content-start gap-4">
      <h1 class="text-xl">Bring readings in</h1>
      <FileField
        label="Table of readings"
        accept=".csv,.tsv,.txt,.xlsx"
        hint="CSV or XLSX with a head"
        :largest-mb="5"
        @chosen="choose"
      />
      <ChoiceField v-model="quantity" label="What was read, where no column says" :choices="quantities" />
      <label class="flex items-start gap-2"
        ><input v-model="asWritten" type="checkbox" class="mt-1 size-5" /> take readings that look like a slip
        as they are written</label
      >
      <p class="text-sm text-ink-soft">
        Columns: <b>hole</b>, <b>clock_h</b>, <b>repeat</b>, <b>reading</b>, <b>unit</b>; <b>liner</b> for
        flanges; also <b>taken_by</b>, <b>taken_at</b>, <b>land</b>, <b>set</b>. Readings without a unit are
        {{ bareSaid }}. The table that the proof page gives out comes back as it is.
      </p>
      <RefusalNote v-if="refusal?.problems.every((one) => one.field !== 'file')" :refusal="refusal" />
    </section>
    <section aria-label="Rows" class="min-w-0">
      <WaitingNote class="py-2" :waiting="waiting" what="looking at the rows" give-up="Give it up" />
      <template v-if="report">
        <h2 class="text-xl">{{ name }}</h2>
        <p v-if="taken !== null && taken > 0" role="status" class="py-2 text-in">
          {{ many(taken, 'reading') }} taken, each hole in a pass of its own.
          <RouterLink :to="{ name: 'home', params: { job: job.jobId } }" class="link"
            >To the block</RouterLink
          >
        </p>
        <div v-else class="flex flex-wrap items-center gap-3 py-2">
          <p>
            {{ many(report.rows.length, 'row') }}: {{ good.length }} good<template v-if="here.length"
              >, {{ here.length }} here already</template
            ><template v-if="bad.length"
              >, <b class="text-out">{{ bad.length }} bad</b></template
            >
          </p>
          <button
            v-if="bad.length === 0"
            type="button"
            class="act"
            :disabled="busy || good.length === 0"
            @click="take('all or nothing')"
          >
            Take {{ many(good.length, 'reading') }}
          </button>
          <template v-else>
            <button
              type="button"
              class="quiet min-h-11"
              :disabled="busy || good.length === 0"
              @click="take('leave bad rows out')"
            >
              Leave {{ many(bad.length, 'bad row') }} out, take {{ good.length }}
            </button>
            <span class="text-ink-soft">or put the file right and choose it again</span>
          </template>
        </div>
        <section
          v-if="taken === null && good.length > 0"
          aria-label="Before it is taken"
          class="border-l-4 py-1 pl-3"
          :class="report.changes.length > 0 ? 'border-unsure' : 'border-rule'"
        >
          <p v-if="report.changes.length > 0">
            Each hole and part in the file gets a new set, which then counts alone. With these rows:
          </p>
          <StateChanges :changes="report.changes" />
        </section>
        <ImportedRows :rows="report.rows" />
      </template>
      <p v-else-if="!busy" class="max-w-prose py-8 text-lg text-ink-soft">
        Choose a file: each of its rows is shown here with what becomes of it, and nothing is taken before you
        say so.
      </p>
    </section>
  </main>
</template>
