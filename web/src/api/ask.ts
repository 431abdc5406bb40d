/** Calls of the generated client: the answer itself, or a Refusal with the reason and its fields. */
import { client } from './generated/client.gen'
import type { ErrorBody } from './generated'

client.setConfig({ baseUrl: '' })

export interface Suggestion {
  label: string
  text: string
  confirm: boolean
}

export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly problems: { field: string; message: string }[] = [],
    readonly suggestions: Suggestion[] = [],
  ) {
    super(message)
  }

  /** What is wrong at one field, empty when nothing is. */
  at(field: string): string {
    return this.problems.find((problem) => problem.field === field)?.message ?? ''
  }
}

interface Answer<T> {
  data?: T
  error?: unknown
}

const UNREACHABLE = 'The application cannot be reached. What you typed is kept: try again when it is back.'

/** Why nobody is let in here: the device is not paired, or nobody has signed in; empty where somebody is. */
export type ShutOut = '' | 'not paired' | 'not signed in'
export const shutOutBy = (code: string): ShutOut =>
  code === 'not paired' || code === 'not signed in' ? code : ''

let atTheDoor: (by: ShutOut) => unknown = () => undefined

/** What to do when this device is not let in, or nobody is signed in, or no longer. */
export function whenShutOut(run: (by: ShutOut) => unknown): void {
  atTheDoor = run
}

/** No form asks for the person: the chip at the top right does. */
const NOBODY = 'Say who you are first: choose your name at the top right, or add it under Gauges and people.'

export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await call
  } catch {
    throw new Refusal('unavailable', UNREACHABLE)
  }
  if (answer.data !== undefined) return answer.data
  const body = answer.error as Partial<ErrorBody> | undefined
  if (body?.code === undefined) throw new Refusal('unavailable', UNREACHABLE)
  const by = shutOutBy(body.code)
  if (by) atTheDoor(by)
  const message = body.problems?.some((one) => one.field === 'person_id') ? NOBODY : (body.message ?? '')
  throw new Refusal(body.code, message, body.problems, body.suggestions)
}

export function asRefusal(error: unknown): Refusal {
  return error instanceof Refusal ? error : new Refusal('wrong', String(error))
}
