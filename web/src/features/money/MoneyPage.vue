<script setup lang="ts">
import { computed, ref } from 'vue'

import { useJob } from '@/shared/state/job'
import RefusalNote from '@/shared/ui/RefusalNote.vue'

import AnswerForm from './AnswerForm.vue'
import DeclinedList from './DeclinedList.vue'
import DraftEditor from './DraftEditor.vue'
import FoundTear from './FoundTear.vue'
import MoneyRule from './MoneyRule.vue'
import PaidForm from './PaidForm.vue'
import StandingSheet from './StandingSheet.vue'
import { useMoney } from './useMoney'
import { money, number } from './words'

/** What a job costs at worst, agreed by whom, what was used, what is taken off, and what a finding does to it. */
const job = useJob()
const now = useMoney(job.jobId)
const { data, missing } = now
const standing = computed(() => data.value?.standing ?? null)
const agreed = computed(
  () => data.value?.written.find((one) => one.estimate_id === standing.value?.estimate_id) ?? null,
)
const waiting = computed(() => data.value?.written.filter((one) => one.answer === null).at(-1) ?? null)
const writing = ref(false)
const shows = computed(() => (writing.value || (!standing.value && !waiting.value) ? 'draft' : 'standing'))
const sent = ref(false)
</script>

<template>
  <main class="flex-1 px-5 py-3">
    <RefusalNote :refusal="missing" />
    <p v-if="!data && !missing" class="py-6 text-ink-soft" aria-busy="true">The estimate is being drafted.</p>
    <template v-if="data">
      <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h1 class="text-xl">Worst case and what it took</h1>
        <p class="text-ink-soft">
          what is not used is taken off ·
          <template v-if="data.rate !== null">{{ money(data.rate) }} {{ data.currency }}/h</template>
          <RouterLink v-else class="link" :to="{ name: 'prices' }">say what an hour costs first</RouterLink> ·
          tax apart
        </p>
        <RouterLink class="link" :to="{ name: 'parts', params: { job: job.jobId } }"
          >Parts and orders</RouterLink
        >
        <RouterLink class="link" :to="{ name: 'bill', params: { job: job.jobId } }">Bill</RouterLink>
        <p v-if="agreed" class="ml-auto text-sm text-ink-soft">
          worst case agreed by <b class="text-ink">{{ agreed.said }}</b><template v-if="agreed.way"
            >, {{ agreed.way }}</template
          >, {{ agreed.answered_on }}
        </p>
      </div>
      <template v-if="shows === 'draft'">
        <p class="mt-1 text-lg leading-snug">
          <template v-if="data.totals">
            <b class="text-2xl"
              >{{ money(data.totals.net.low) }} to {{ money(data.totals.net.worst) }} {{ data.currency }}</b
            >
            before tax as the job drafts it now: hours from the log and the route, parts from what it needs.
          </template>
          <b v-else class="text-2xl">Nobody has said what an hour of the shop costs.</b>
        </p>
        <DraftEditor :view="data" :now="now" @written="writing = false" />
      </template>
      <template v-else-if="standing">
        <p class="mt-1 text-lg leading-snug" aria-live="polite">
          <template v-if="standing.is_broken">
            <b class="mr-2 text-2xl text-out">Broken:</b>
            <b class="text-2xl"> {{ money(standing.at_most) }} {{ data.currency }}</b> at worst,
            {{ money(standing.over) }} over the {{ money(standing.agreed) }} agreed.
          </template>
          <template v-else>
            <b class="text-2xl">{{ money(standing.at_most) }} {{ data.currency }}</b> at most, of
            {{ money(standing.agreed) }} agreed<template v-if="number(standing.off) > 0"
              >; {{ money(standing.off) }} is taken off</template
            >.
          </template>
        </p>
        <div class="mt-2 grid grid-cols-[minmax(0,1fr)] gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
          <MoneyRule :standing="standing" :currency="data.currency" />
          <div class="bg-plate px-5 py-4 text-plate-text">
            <template v-if="standing.is_broken">
              <p class="text-plate-soft">What this job needs</p>
              <p class="text-lg font-bold">{{ data.message }}</p>
              <div class="mt-3 flex flex-wrap items-center gap-4">
                <button type="button" class="act" @click="writing = true">Write it anew, to be agreed</button>
                <button type="button" class="text-plate-act underline" @click="sent = !sent">
                  {{ sent ? 'Close' : 'The words, to copy' }}
                </button>
              </div>
              <label v-if="sent" class="mt-3 block text-sm text-plate-soft"
                >Words to the owner
                <textarea rows="4" class="field mt-1 text-ink" readonly :value="data.message" />
              </label>
            </template>
            <template v-else>
              <p class="text-plate-soft">As it stands</p>
              <p class="text-lg font-bold">
                {{ money(standing.so_far) }} {{ data.currency }} used so far, {{ standing.hours_used }} of
                {{ standing.hours_agreed }} h. Nothing beyond what was agreed is done without a word.
              </p>
              <button type="button" class="mt-2 text-plate-act underline" @click="writing = true">
                Write another estimate
              </button>
            </template>
          </div>
        </div>
        <FoundTear v-if="standing.found.length" :standing="standing" :currency="data.currency" />
        <div class="mt-2 grid grid-cols-[minmax(0,1fr)] gap-3 xl:grid-cols-[minmax(0,9fr)_minmax(0,11fr)]">
          <StandingSheet title="Parts" sheet="parts" :standing="standing" :currency="data.currency" />
          <StandingSheet
            title="Labour with machining"
            sheet="labour with machining"
            :standing="standing"
            :currency="data.currency"
          />
        </div>
      </template>
      <AnswerForm
        v-if="waiting && shows === 'standing'"
        class="mt-4"
        :one="waiting"
        :customer="data.customer"
        :now="now"
        :job="job.jobId"
      />
      <div class="mt-6 grid grid-cols-[minmax(0,1fr)] gap-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <PaidForm :view="data" :now="now" />
        <DeclinedList :view="data" :now="now" />
      </div>
      <section v-if="data.written.length" class="mt-6" aria-labelledby="written">
        <h2 id="written" class="text-lg">Written so far</h2>
        <ul>
          <li
            v-for="one in data.written"
            :key="one.estimate_id"
            class="flex flex-wrap gap-x-4 border-b border-rule py-1"
          >
            <span>{{ one.drawn_at.slice(0, 10) }}, {{ one.drawn_by }}</span>
            <b class="num">{{ money(one.totals.net.low) }} to {{ money(one.totals.net.worst) }}</b>
            <span>with tax {{ money(one.totals.gross.worst) }} {{ one.currency }}</span>
            <span :class="one.answer === 'refused' ? 'text-out' : 'text-ink-soft'">{{
              one.answer ? `${one.answer} by ${one.said}` : 'not answered yet'
            }}</span>
            <a class="link ml-auto" :href="`/api/jobs/${job.jobId}/estimates/${one.estimate_id}.pdf`">PDF</a>
          </li>
        </ul>
      </section>
    </template>
  </main>
</template>
