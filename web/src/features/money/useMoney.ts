/** The money of a job: loaded with it, and everything that is written down about it. */
import { onBeforeUnmount, type Ref, ref, type ShallowRef } from 'vue'

import { ask, asRefusal, type Refusal } from '@/api/ask'
import {
  answerEstimate,
  type Bill,
  decline,
  type MoneyView,
  payPart,
  readMoney,
  writeEstimate,
} from '@/api/generated'
import { newId } from '@/shared/newId'
import { onChange } from '@/shared/state/link'
import { personId } from '@/shared/state/preferences'
import { useLoaded } from '@/shared/state/useLoaded'

import type { TypedLine } from './words'

export interface Answer {
  answer: 'agreed' | 'refused'
  said: string
  way: string
  on: string
  words: string
}

export interface MoneyNow {
  data: ShallowRef<MoneyView | null>
  missing: Ref<Refusal | null>
  refusal: Ref<Refusal | null>
  busy: Ref<boolean>
  write: (lines: readonly TypedLine[], words: string) => Promise<boolean>
  answer: (estimate: string, said: Answer) => Promise<boolean>
  decline: (what: string, reason: string) => Promise<boolean>
  pay: (key: string, words: string, amount: string, bill: Bill) => Promise<boolean>
}

const plain = (text: string) => text.trim().replace(',', '.') || '0'

export function useMoney(job: string): MoneyNow {
  const { data, refusal: missing, load } = useLoaded(() => ask(readMoney({ path: { job_id: job } })))
  const refusal = ref<Refusal | null>(null)
  const busy = ref(false)
  onBeforeUnmount(onChange((changed) => void (changed === job && load())))

  async function send(work: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    refusal.value = null
    try {
      await work()
      await load()
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    } finally {
      busy.value = false
    }
  }
  const path = { job_id: job }
  const who = () => ({ person_id: personId.value })

  return {
    data,
    missing,
    refusal,
    busy,
    write: (lines, words) =>
      send(() =>
        ask(
          writeEstimate({
            path,
            body: {
              estimate_id: newId(),
              words,
              lines: lines.map((line) => ({
                sheet: line.sheet,
                key: line.key,
                words: line.words,
                low: plain(line.low),
                worst: plain(line.worst),
                tax_percent: plain(line.tax),
              })),
              ...who(),
            },
          }),
        ),
      ),
    answer: (estimate_id, said) =>
      send(() => ask(answerEstimate({ path: { ...path, estimate_id }, body: { ...said, ...who() } }))),
    decline: (what, reason) => send(() => ask(decline({ path, body: { what, reason, ...who() } }))),
    pay: (key, words, amount, bill) =>
      send(() =>
        ask(
          payPart({
            path,
            body: { part_cost_id: newId(), key, words, money: plain(amount), bill, ...who() },
          }),
        ),
      ),
  }
}
