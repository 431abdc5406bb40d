/** Sends a large file with its progress, and can be given up on the way. */
import { Refusal } from '@/api/ask'
import type { ErrorBody } from '@/api/generated'

export interface Sending {
  answer: Promise<unknown>
  giveUp: () => void
}

export function sendFile(
  address: string,
  file: File,
  fields: Record<string, string>,
  progress: (share: number) => void,
): Sending {
  const body = new FormData()
  for (const [name, value] of Object.entries(fields)) body.append(name, value)
  body.append('file', file)
  // fetch tells nothing of how far an upload is.
  const request = new XMLHttpRequest()
  const answer = new Promise<unknown>((resolve, reject) => {
    request.upload.onprogress = (event) => {
      if (event.lengthComputable) progress(event.loaded / event.total)
    }
    request.onload = () => {
      if (request.status < 300) return resolve(JSON.parse(request.responseText))
      reject(refusalOf(request.responseText))
    }
    request.onerror = () =>
      reject(new Refusal('unreachable', 'The link broke on the way: nothing is kept, try again.'))
    request.onabort = () => reject(new Refusal('wrong', 'Given up: nothing of this file is kept.'))
  })
  request.open('POST', address)
  request.send(body)
  return { answer, giveUp: () => request.abort() }
}

function refusalOf(text: string): Refusal {
  try {
    const body = JSON.parse(text) as ErrorBody
    return new Refusal(body.code, body.message, body.problems, body.suggestions)
  } catch {
    return new Refusal('unavailable', 'The application did not answer: nothing is kept, try again.')
  }
}
