import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'

import { localVoice, readBack } from './readBack'
import { useAloud } from './useAloud'

describe('aloud', () => {
  const heard: string[] = []
  const next = ref('hole 1 at 12')
  const taken = ref('')
  const known = ref(true)
  const scope = effectScope()

  beforeEach(() => {
    readBack.value = 'aloud'
    heard.length = 0
    vi.stubGlobal('speechSynthesis', {
      getVoices: () => [{ lang: 'en-GB', localService: true }],
      speak: (said: { text: string }) => heard.push(said.text),
    })
    vi.stubGlobal(
      'SpeechSynthesisUtterance',
      class {
        constructor(readonly text: string) {}
      },
    )
    scope.run(() =>
      useAloud({
        next: () => next.value,
        taken: () => taken.value,
        isKnown: () => known.value,
        verdict: () => 'in',
      }),
    )
  })
  afterEach(() => {
    scope.stop()
    vi.unstubAllGlobals()
    readBack.value = 'tone'
  })

  it('says the verdict once it is known, and what is next after it, whichever comes first', async () => {
    known.value = false
    taken.value = '8.8'
    next.value = 'hole 1 at 3'
    await nextTick()
    expect(heard).toEqual([])
    known.value = true
    await nextTick()
    expect(heard).toEqual(['in', 'next, hole 1 at 3'])
    next.value = ''
    await nextTick()
    expect(heard.at(-1)).toBe('nothing is left to read')
  })

  it('never uses a voice that is lent', () => {
    const voice = (name: string, localService: boolean, lang = 'en-GB') =>
      ({ name, localService, lang }) as SpeechSynthesisVoice
    expect(localVoice([voice('lent', false)])).toBeNull()
    expect(localVoice([voice('lent', false), voice('de', true, 'de-DE'), voice('own', true)])?.name).toBe(
      'own',
    )
    expect(localVoice([voice('de', true, 'de-DE')])?.name).toBe('de')
  })
})
