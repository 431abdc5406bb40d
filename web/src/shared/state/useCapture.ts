/** Taking readings at a bench, whatever is read: one spot, taken or refused, asked back about, undone, or unreadable. */
import { ref, type Ref } from 'vue'

import { ask, asRefusal, type Refusal, type Suggestion } from '@/api/ask'
import { markPlaceUnreadable, type PlaceView, type Quantity, type ReadingBody } from '@/api/generated'

import { ownChange, refresh } from './link'
import { personId } from './preferences'
import { tell } from './readBack'
import { type Sent, useSender } from './useSender'
import { type Taken, useTaken } from './useTaken'
import type { Undo } from './useUndo'

export type ReadBefore = '' | 'repeat' | 'correct' | 'new pass'
export interface TakeAs {
  text: string
  confirmed?: boolean
  readBefore?: ReadBefore
  /** A gauge sent it: it lies where it lies, also between two steps. */
  fromGauge?: boolean
}

/** A spot of a part as a bench knows it. */
export interface CaptureSpot {
  key: string
  name: string
  quantity: Quantity
  /** Key of the part, such as hole-2. */
  part: string
  place: PlaceView
  /** What says in a reading where it stands. */
  where: Partial<ReadingBody>
  bareUnit: ReadingBody['bare_unit']
  unreadable: string
  /** Its first reading opens a set of its own. */
  opensSet: boolean
}

/** A spot of a bench that goes on by itself: who moved meanwhile is not moved again, not even back at the spot read. */
export interface MovingSpot extends CaptureSpot {
  /** How often somebody had moved when it was read. */
  moves: number
}

export interface Capture {
  taken: Taken
  refusal: Ref<Refusal | null>
  /** The reading before is under way: a bouncing pedal takes nothing twice. */
  busy: Ref<boolean>
  take: (as: TakeAs) => Promise<boolean>
  again: (answer: Suggestion | ReadBefore) => Promise<boolean>
  takeBack: () => Promise<void>
  sayUnreadable: (unreadable: boolean, reason: string) => Promise<boolean>
}

/** ``done`` is called once a spot is read or cannot be; what is shown was loaded again by then. */
export function useCapture<Spot extends CaptureSpot>(
  jobId: string,
  undo: Undo,
  spot: () => Spot | null,
  done: (spot: Spot) => Promise<void>,
): Capture {
  const taken = useTaken()
  const refusal = ref<Refusal | null>(null)
  const sender = useSender(jobId)
  let asked: TakeAs | null = null
  const busy = ref(false)

  async function take(as: TakeAs): Promise<boolean> {
    const at = spot()
    if (at === null || busy.value) return false
    busy.value = true
    refusal.value = null
    taken.forget()
    asked = as
    const readBefore = as.readBefore === 'repeat' || as.readBefore === 'correct' ? as.readBefore : ''
    try {
      const sent = await undo.inTurn(async () => {
        const now = await sender.send(JSON.stringify([at.part, at.key, as]), {
          quantity: at.quantity,
          ...at.where,
          text: as.text,
          bare_unit: at.bareUnit,
          confirmed: as.confirmed ?? false,
          from_gauge: as.fromGauge ?? false,
          read_before: readBefore,
          new_pass: as.readBefore === 'new pass' || at.opensSet,
          person_id: personId.value,
        })
        undo.took(now.event)
        return now
      })
      await settle(at, sent)
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      undo.took(null)
      tell(refusal.value.message, false)
      return false
    } finally {
      busy.value = false
    }
  }

  async function settle(at: Spot, sent: Sent): Promise<void> {
    taken.say(at.name, sent.words, sent.readingId, sent.waitingId)
    await refresh(jobId)
    // The next pedal counts once the bench stands at the next spot.
    await done(at)
  }

  /** What was refused or is asked about was never recorded: it is dropped, nothing else is taken back. */
  async function takeBack(): Promise<void> {
    if (refusal.value !== null) {
      refusal.value = null
      undo.said.value = 'nothing: it was not recorded'
      return
    }
    if (!(await undo.undo())) return
    taken.forget()
    tell(`undone: ${undo.said.value}`, true)
  }

  function again(answer: Suggestion | ReadBefore): Promise<boolean> {
    if (asked === null) return Promise.resolve(false)
    if (typeof answer === 'string') return take({ ...asked, readBefore: answer })
    return take({ ...asked, text: answer.text || asked.text, confirmed: answer.confirm })
  }

  async function sayUnreadable(unreadable: boolean, reason: string): Promise<boolean> {
    const at = spot()
    if (at === null) return false
    const mark = (cannot: boolean, why: string) =>
      ownChange(jobId, () =>
        ask(
          markPlaceUnreadable({
            path: { job_id: jobId, quantity: at.quantity, part: at.part },
            body: { place: at.place, unreadable: cannot, reason: why, person_id: personId.value },
          }),
        ),
      )
    try {
      await undo.inTurn(async () => {
        await mark(unreadable, reason)
        undo.did()
      })
      refusal.value = null
      taken.say(unreadable ? at.name : '', unreadable ? 'cannot be read' : 'it can be read again')
      await refresh(jobId)
      if (unreadable) await done(at)
      return true
    } catch (error) {
      refusal.value = asRefusal(error)
      return false
    }
  }

  return { taken, refusal, busy, take, again, takeBack, sayUnreadable }
}
