/** Readings taken while the application is out of reach: kept here, sent in order, each once. */
import { computed, ref, shallowRef } from 'vue'

import { ask, asRefusal, type Refusal, shutOutBy, type Suggestion } from '@/api/ask'
import { computeParse, type ParseAnswer, type ReadingBody, takeReading } from '@/api/generated'

import { hourText } from '@/shared/format/clock'

import { linkUp, onChange, shutOut } from './link'
import { type BoreLine, shelf, type WaitingReading } from './shelf'

const TRY_AGAIN_MS = 2_000

export const waiting = shallowRef<WaitingReading[]>([])
/** Why the first one is not taken: it has to be answered before the rest goes on. */
export const held = ref<Refusal | null>(null)
/** What waits, in the words of the entry line. */
export function waitingWords(one: WaitingReading): string {
  if (one.line !== '') return one.line
  const { hole, hour, part, text } = one.body
  return `${hole ?? part ?? ''}${hour ? `·${hourText(hour)}` : ''} ${text}`.trim()
}
/** The reading that was sent last of those that waited. */
export const sentLast = ref('')
export const waitingFor = (jobId: string) => waiting.value.filter((one) => one.jobId === jobId)
/** Whether a new reading has to wait behind others, or for the link. */
export const mustWait = computed(() => !linkUp.value || waiting.value.length > 0)
let sending = false

async function look(): Promise<void> {
  waiting.value = await (await shelf()).getAll('waiting')
}

/** Keep a reading until it can be sent; a line of the entry line goes as typed. */
export async function keep(
  jobId: string,
  body: ReadingBody,
  line: { text: string; holes: number[]; bore?: BoreLine | undefined } = { text: '', holes: [] },
): Promise<void> {
  const { text, holes, bore } = line
  const kept = { jobId, body: { ...body }, line: text, holes: [...holes], takenAt: Date.now() }
  const one = bore ? { ...kept, bore: JSON.parse(JSON.stringify(bore)) as BoreLine } : kept
  await (await shelf()).add('waiting', one)
  await look()
}

async function change(one: WaitingReading): Promise<WaitingReading> {
  await (await shelf()).put('waiting', one)
  return one
}

/** What a kept line says, as a reading; null when it only chooses a hole. */
async function understood(one: WaitingReading): Promise<WaitingReading | null> {
  if (one.line === '') return one
  const { hole = null, hour = null, bare_unit, confirmed = false } = one.body
  const parsed = await ask(
    computeParse({
      body: {
        text: one.line,
        bare_unit,
        confirmed,
        holes: one.holes,
        present_hole: hole,
        present_hour: hour,
        ...one.bore,
      },
    }),
  )
  if (parsed.value_um === null) return null
  const where = one.bore ? borePlace(parsed) : { hole: parsed.hole, hour: parsed.hour }
  const body = { ...one.body, text: parsed.typed, ...where }
  return change({ ...one, line: '', body })
}

/** Where a reading of a bore stands: on a part, not on a hole round the clock. */
export function borePlace(parsed: ParseAnswer): Partial<ReadingBody> {
  const { hole, level_um = null, axis_deg = null } = parsed
  return { hole: null, hour: null, part: `hole-${hole ?? ''}`, level_um, axis_deg }
}

async function send(one: WaitingReading): Promise<void> {
  const reading = await understood(one)
  if (reading === null) return
  const waited_s = Math.max(0, (Date.now() - reading.takenAt) / 1000)
  await ask(takeReading({ path: { job_id: reading.jobId }, body: { ...reading.body, waited_s } }))
}

/** Send what waits, oldest first; the first that is not taken stops it, so that the order is kept. */
export async function sendWaiting(): Promise<void> {
  if (sending || held.value !== null) return
  sending = true
  try {
    await look()
    for (const one of waiting.value) {
      await send(one)
      shutOut.value = ''
      sentLast.value = one.body.reading_id ?? ''
      await (await shelf()).delete('waiting', one.order ?? 0)
      waiting.value = waiting.value.filter((other) => other !== one)
    }
  } catch (error) {
    const refusal = asRefusal(error)
    const by = shutOutBy(refusal.code)
    if (by) shutOut.value = by
    else if (refusal.code !== 'unavailable') held.value = refusal
  } finally {
    sending = false
  }
}

/** Answer what is asked about the first one, and go on. */
export async function answerHeld(answer: Suggestion | 'repeat' | 'correct' | 'new pass'): Promise<void> {
  await look()
  const first = waiting.value[0]
  if (!first) return
  const { body } = first
  if (answer === 'new pass') await change({ ...first, body: { ...body, new_pass: true } })
  else if (typeof answer === 'string') await change({ ...first, body: { ...body, read_before: answer } })
  else if (first.line !== '')
    await change({ ...first, line: answer.text || first.line, body: { ...body, confirmed: answer.confirm } })
  else
    await change({ ...first, body: { ...body, text: answer.text || body.text, confirmed: answer.confirm } })
  held.value = null
  await sendWaiting()
}

/** Leave the first one out: it was never taken into the record. */
export async function dropHeld(): Promise<void> {
  const first = waiting.value[0]
  if (first) await (await shelf()).delete('waiting', first.order ?? 0)
  held.value = null
  await sendWaiting()
}

/** Take back the newest reading of a job that still waits; false when none does. */
export async function takeBack(jobId: string): Promise<boolean> {
  const last = waitingFor(jobId).at(-1)
  if (!last) return false
  await (await shelf()).delete('waiting', last.order ?? 0)
  await look()
  held.value = null
  return true
}

export function startOutbox(): void {
  void sendWaiting()
  onChange((jobId) => {
    if (jobId === null) void sendWaiting()
  })
  window.setInterval(() => {
    if (waiting.value.length > 0 && linkUp.value) void sendWaiting()
  }, TRY_AGAIN_MS)
}
