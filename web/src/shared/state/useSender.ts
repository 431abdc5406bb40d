/** Sending a reading so that none is lost or doubled: kept while the link is down, one id however often it is sent. */
import { ask, asRefusal } from '@/api/ask'
import { type ReadingBody, takeReading } from '@/api/generated'
import { asTyped } from '@/shared/format/lengths'
import { newId } from '@/shared/newId'

import { linkFailed, ownChange, soon } from './link'
import { keep, mustWait } from './outbox'

export interface Sent {
  /** What to say of it: as it was recorded, or that it waits. */
  words: string
  /** Empty and null while it waits; then it is known here by the id it will have. */
  readingId: string
  event: number | null
  waitingId: string
}

export interface Sender {
  /** The same key means the same reading sent again: a lost answer doubles nothing. */
  send: (key: string, body: Omit<ReadingBody, 'reading_id'>) => Promise<Sent>
}

export function useSender(jobId: string): Sender {
  let unsent = { key: '', id: '' }

  async function wait(body: ReadingBody): Promise<Sent> {
    await keep(jobId, body)
    return {
      words: `${body.text}, waiting for the link`,
      readingId: '',
      event: null,
      waitingId: body.reading_id ?? '',
    }
  }

  /** Out of reach, the reading is kept here under the same id, and the next place comes all the same. */
  async function sendNow(body: ReadingBody): Promise<Sent> {
    try {
      const reading = await ownChange(jobId, () =>
        ask(takeReading({ path: { job_id: jobId }, body, signal: soon() })),
      )
      return {
        words: asTyped(reading.typed, reading.typed_unit),
        readingId: reading.reading_id,
        event: reading.event,
        waitingId: '',
      }
    } catch (error) {
      if (asRefusal(error).code !== 'unavailable') throw error
      linkFailed()
      return wait(body)
    }
  }

  async function send(key: string, rest: Omit<ReadingBody, 'reading_id'>): Promise<Sent> {
    if (unsent.key !== key) unsent = { key, id: newId() }
    const body: ReadingBody = { ...rest, reading_id: unsent.id }
    const sent = await (mustWait.value ? wait(body) : sendNow(body))
    unsent = { key: '', id: '' }
    return sent
  }

  return { send }
}
