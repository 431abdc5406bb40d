/** The link to the application: what changes there is heard here, and whether it stands is known. */
import { useDocumentVisibility } from '@vueuse/core'
import { ref, watch } from 'vue'

import { ask, asRefusal, type ShutOut, shutOutBy } from '@/api/ask'
import { type ChangeView, listPeople } from '@/api/generated'

/** The application sends a beat every five seconds; after this silence the link counts as down. */
const SILENCE_MS = 12_000
const TRY_AGAIN_MS = 1_500

export const linkUp = ref(true)
/** When the link went down, null while it stands. [ms] */
export const downSince = ref<number | null>(null)

/** The device is not let in, or nobody signed in: no wait for the link helps, a code or a password does. */
export const shutOut = ref<ShutOut>('')

/** A reading that is not answered by then is kept and sent again. */
const ANSWER_MS = 6_000
export const soon = () => AbortSignal.timeout(ANSWER_MS)

type Heard = (jobId: string | null) => void | Promise<void>
const listeners = new Set<Heard>()
let source: EventSource | null = null
let silence = 0

/** Call for every change; null means that everything may have changed. Returns how to stop. */
export function onChange(heard: Heard): () => void {
  listeners.add(heard)
  return () => listeners.delete(heard)
}

function tell(jobId: string | null): void {
  if (jobId === null) echoes.clear()
  else if (swallowed(jobId)) return
  for (const heard of listeners) void heard(jobId)
}

/** An echo comes within this time, or not at all: what was sent twice is recorded once. */
const ECHO_MS = 1_500
/** When this page made a change that it has not heard of yet, job by job: who made it loads what is shown, once. */
const echoes = new Map<string, number[]>()

function swallowed(jobId: string): boolean {
  const waiting = (echoes.get(jobId) ?? []).filter((made) => Date.now() - made < ECHO_MS)
  echoes.set(jobId, waiting.slice(1))
  return waiting.length > 0
}

/** Make a change whose echo loads nothing: what is shown is to be loaded by refresh. */
export async function ownChange<T>(jobId: string, make: () => Promise<T>): Promise<T> {
  echoes.set(jobId, [...(echoes.get(jobId) ?? []), Date.now()])
  try {
    return await make()
  } catch (error) {
    // Whether it was made is not known: better once too often than never.
    echoes.delete(jobId)
    throw error
  }
}

/** Load everything that is shown of a job again, each once. */
export async function refresh(jobId: string): Promise<void> {
  if (!linkUp.value) return
  await Promise.all([...listeners].map(async (heard) => heard(jobId)))
}

function alive(): void {
  window.clearTimeout(silence)
  silence = window.setTimeout(lost, SILENCE_MS)
  if (linkUp.value) return
  linkUp.value = true
  shutOut.value = ''
  downSince.value = null
  tell(null)
}

/** The stream does not say why it ended. */
async function askWhy(): Promise<void> {
  try {
    await ask(listPeople({ signal: soon() }))
  } catch (error) {
    shutOut.value = shutOutBy(asRefusal(error).code)
  }
}

function lost(): void {
  if (linkUp.value || shutOut.value) void askWhy()
  linkUp.value = false
  downSince.value ??= Date.now()
  close()
  silence = window.setTimeout(open, TRY_AGAIN_MS)
}

/** A request that was not answered says more, and sooner, than a silent stream. */
export function linkFailed(): void {
  if (linkUp.value) lost()
}

function open(): void {
  close()
  source = new EventSource('/api/changes')
  source.onmessage = (event) => {
    const change = JSON.parse(String(event.data)) as ChangeView
    const wasUp = linkUp.value
    alive()
    // The link's return has told of everything already.
    if (change.kind === 'changed' && (wasUp || change.job_id !== null)) tell(change.job_id)
  }
  source.onerror = lost
}

function close(): void {
  window.clearTimeout(silence)
  source?.close()
  source = null
}

/** Whoever was shut out is let in now: the link need not be waited for. */
export function admitted(): void {
  shutOut.value = ''
  open()
}

/** Listen while this page is seen: a browser allows only a few open streams for all its pages. */
export function startLink(): void {
  const visibility = useDocumentVisibility()
  watch(
    visibility,
    (now, before) => {
      if (now === 'hidden') return close()
      open()
      if (before === 'hidden') tell(null)
    },
    { immediate: true },
  )
}
