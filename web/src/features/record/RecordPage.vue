<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '@/api/ask'
import { type HeldView, holdFile, holdHead, listOnRecord, listSecurityLog } from '@/api/generated'
import { isOwner } from '@/shared/state/network'
import { useLoaded } from '@/shared/state/useLoaded'
import { useStoppable } from '@/shared/state/useStoppable'
import FileField from '@/shared/ui/FileField.vue'
import RefusalNote from '@/shared/ui/RefusalNote.vue'
import ShopNav from '@/shared/ui/ShopNav.vue'
import TextField from '@/shared/ui/TextField.vue'
import { useForm } from '@/shared/ui/useForm'
import WaitingNote from '@/shared/ui/WaitingNote.vue'

/** A printed proof, a job's file or a head that stands on a proof, held against what is recorded here. */
const { refusal, busy, send } = useForm()
const waiting = useStoppable()
const name = ref('')
const head = ref('')
const held = ref<HeldView | null>(null)
const { data: onRecord } = useLoaded(() => ask(listOnRecord()))
const { data: door } = useLoaded(() => (isOwner.value ? ask(listSecurityLog()) : Promise.resolve([])))
/** What somebody tried in vain. */
const IN_VAIN = ['wrong code', 'too many codes', 'wrong password', 'too many passwords', 'refused']
const when = (at: string) => at.slice(0, 16).replace('T', ' ')

function holdChosen(file: File): Promise<void> {
  return hold(file.name, (signal) => ask(holdFile({ body: { file }, signal })))
}
function holdTyped(): Promise<void> {
  return hold('The head', (signal) => ask(holdHead({ body: { head: head.value }, signal })))
}
function hold(what: string, work: (signal: AbortSignal) => Promise<HeldView>): Promise<void> {
  held.value = null
  name.value = what
  return send(async () => {
    held.value = await waiting.run(work)
  })
}
</script>

<template>
  <main class="mx-auto grid w-full max-w-[1400px] grid-cols-[minmax(0,1fr)] gap-y-4 px-5 py-4">
    <ShopNav />
    <div class="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-6 lg:grid-cols-[26rem_minmax(0,1fr)]">
      <div class="grid content-start gap-5">
        <h1 class="text-xl">Hold against the record</h1>
        <FileField
          label="Proof or job"
          accept=".pdf,.json,.zip"
          hint="a proof as PDF, a job as JSON or ZIP"
          :largest-mb="100"
          @chosen="holdChosen"
        />
        <form class="grid gap-3" @submit.prevent="holdTyped">
          <TextField v-model="head" label="or the head as printed" path="head" />
          <button type="submit" class="act justify-self-start" :disabled="busy || head.trim() === ''">
            Hold it
          </button>
        </form>
        <WaitingNote :waiting="waiting" what="holding it against the record" give-up="Give it up" />
      </div>
      <section aria-label="What was found" class="min-w-0" aria-live="polite">
        <RefusalNote
          v-if="refusal?.problems.every((one) => one.field !== 'file' && one.field !== 'head')"
          :refusal="refusal"
        />
        <div v-if="held" class="border-l-4 pl-4" :class="held.stands ? 'border-in' : 'border-out'">
          <h2 class="text-2xl font-bold" :class="held.stands ? 'text-in' : 'text-out'">
            {{ held.stands ? 'It stands' : 'It does not stand' }}
          </h2>
          <p class="text-ink-soft">{{ name }}</p>
          <p v-for="words in held.words" :key="words" class="mt-2 text-lg">{{ words }}</p>
          <RouterLink
            v-if="held.job_id"
            class="link mt-3 inline-block"
            :to="{ name: 'home', params: { job: held.job_id } }"
            >To the job</RouterLink
          >
        </div>
        <div class="grid max-w-prose gap-3 text-ink-soft" :class="held && 'mt-6 text-sm'">
          <p :class="!held && 'text-lg'">
            Everything recorded about a job is chained: the digest of each entry holds all entries before it.
            A proof carries the newest, its head, as text and as a picture.
          </p>
          <p>
            Whoever kept a proof can tell whether anything it rests on was changed, taken out or put in since.
            A head that was never kept outside this shop tells nothing: whoever owns the machine can make all
            of it anew.
          </p>
          <p>Nothing of what is chosen here is kept.</p>
        </div>
      </section>
    </div>
    <section v-if="onRecord?.length" aria-labelledby="on-record" class="min-w-0 overflow-x-auto">
      <h2 id="on-record" class="mb-1 text-lg">What went out and came in</h2>
      <table class="w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-1 pr-6 font-normal">when, UTC</th>
            <th scope="col" class="pr-6 font-normal">what</th>
            <th scope="col" class="pr-6 font-normal">job</th>
            <th scope="col" class="pr-6 font-normal">by</th>
            <th scope="col" class="pr-6 font-normal">SHA-256</th>
            <th scope="col" class="w-full font-normal">with</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in onRecord" :key="one.sha256 + one.at" class="border-b border-rule align-top">
            <td class="num py-1 pr-6 whitespace-nowrap">{{ when(one.at) }}</td>
            <td class="py-1 pr-6 whitespace-nowrap">{{ one.went_out ? 'proof out' : 'job in' }}</td>
            <td class="py-1 pr-6 whitespace-nowrap">
              <RouterLink class="link" :to="{ name: 'home', params: { job: one.job_id } }"
                >{{ one.number }} {{ one.name }}</RouterLink
              >
            </td>
            <td class="py-1 pr-6 whitespace-nowrap">{{ one.by }}</td>
            <td class="num py-1 pr-6" :title="one.sha256">{{ one.sha256.slice(0, 12) }}…</td>
            <td class="py-1">{{ one.words }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="door?.length" aria-labelledby="at-the-door" class="min-w-0 overflow-x-auto">
      <h2 id="at-the-door" class="mb-1 text-lg">At the door</h2>
      <table class="w-full border-collapse">
        <thead>
          <tr class="border-b border-ink-soft text-left text-sm text-ink-soft">
            <th scope="col" class="py-1 pr-6 font-normal">when, UTC</th>
            <th scope="col" class="pr-6 font-normal">what</th>
            <th scope="col" class="pr-6 font-normal">from</th>
            <th scope="col" class="w-full font-normal">who</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(one, at) in door" :key="at" class="border-b border-rule align-top">
            <td class="num py-1 pr-6 whitespace-nowrap">{{ when(one.at) }}</td>
            <td
              class="py-1 pr-6 whitespace-nowrap"
              :class="IN_VAIN.includes(one.kind) && 'font-bold text-out'"
            >
              {{ one.kind }}
            </td>
            <td class="num py-1 pr-6 whitespace-nowrap">{{ one.address }}</td>
            <td class="py-1">{{ one.words }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </main>
</template>
