/** An application for unit tests: answers as told, and remembers what it was asked. */
import { vi } from 'vitest'

export interface Asked {
  method: string
  path: string
  body: unknown
}

type Answer = { status?: number; body: unknown } | 'away' | Promise<unknown>

export interface FakeServer {
  asked: Asked[]
  /** Answers of one address, oldest first; the last one holds. */
  answer: (path: string | RegExp, ...answers: (Answer | ((asked: Asked) => Answer))[]) => void
}

export const refusalBody = (code: string, message: string) => ({
  code,
  message,
  problems: [],
  suggestions: [],
})

/** A promise that is kept answers what it brings; one that fails answers as it says. */
const failedWith = (answer: Exclude<Answer, Promise<unknown>>) => answer

/** ``away`` is a network that does not answer. */
export function fakeServer(): FakeServer {
  const asked: Asked[] = []
  const routes: { path: string | RegExp; answers: (Answer | ((asked: Asked) => Answer))[] }[] = []

  vi.stubGlobal(
    'fetch',
    vi.fn(async (request: Request) => {
      const path = decodeURIComponent(new URL(request.url, 'http://here').pathname)
      const text = await request.clone().text()
      const isJson = request.headers.get('content-type')?.includes('json') ?? false
      const sent = text && isJson ? (JSON.parse(text) as unknown) : text || null
      const now: Asked = { method: request.method, path, body: sent }
      asked.push(now)
      const route = routes.find((one) =>
        typeof one.path === 'string' ? one.path === path : one.path.test(path),
      )
      const next = route && (route.answers.length > 1 ? route.answers.shift() : route.answers[0])
      let answer = typeof next === 'function' ? next(now) : next
      if (answer instanceof Promise) answer = await answer.then((body) => ({ body }), failedWith)
      if (answer === 'away') throw new TypeError('network')
      const { status = 200, body } = answer ?? { status: 404, body: refusalBody('not found', path) }
      return new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
    }),
  )
  return {
    asked,
    answer: (path, ...answers) => {
      routes.unshift({ path, answers })
    },
  }
}

/** Let everything that is under way come to rest. */
export async function settled(): Promise<void> {
  for (let turn = 0; turn < 20; turn++) await new Promise((resolve) => setTimeout(resolve))
}
