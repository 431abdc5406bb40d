import { describe, expect, test } from 'vitest'

import { effectScope } from 'vue'

import { useStoppable } from './useStoppable'

const made = () => effectScope().run(() => useStoppable())!

describe('something that takes a while', () => {
  test('gives its answer, and is under way only until then', async () => {
    const waiting = made()
    let finish: (words: string) => void = () => undefined
    const done = waiting.run(() => new Promise<string>((resolve) => (finish = resolve)))
    expect(waiting.seconds.value).toBe(0)
    finish('read')
    expect(await done).toBe('read')
    expect(waiting.seconds.value).toBeNull()
  })

  test('that was given up gives nothing, whatever comes of it', async () => {
    const waiting = made()
    let heard: AbortSignal | null = null
    let fail: (error: Error) => void = () => undefined
    const done = waiting.run((signal) => {
      heard = signal
      return new Promise<string>((_, reject) => (fail = reject))
    })
    waiting.stop()
    expect(heard!.aborted).toBe(true)
    expect(waiting.seconds.value).toBeNull()
    fail(new Error('aborted'))
    expect(await done).toBeNull()
    // And another can begin at once.
    expect(await waiting.run(() => Promise.resolve(7))).toBe(7)
  })

  test('is begun once at a time, and what goes wrong is told', async () => {
    const waiting = made()
    let finish: (count: number) => void = () => undefined
    const first = waiting.run(() => new Promise<number>((resolve) => (finish = resolve)))
    expect(await waiting.run(() => Promise.resolve(2))).toBeNull()
    finish(1)
    expect(await first).toBe(1)
    await expect(waiting.run(() => Promise.reject(new Error('full')))).rejects.toThrow('full')
    expect(waiting.seconds.value).toBeNull()
  })
})
