import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { hasVoice, localVoice, readBack, sayAlso, speakNow, spoken, tell } from './readBack'

const voice = (lang: string, localService: boolean): SpeechSynthesisVoice =>
  ({ lang, localService, name: lang }) as unknown as SpeechSynthesisVoice

describe('what is read back to ears', () => {
  it('says signs and units as words', () => {
    expect(spoken('+42 µm')).toBe('plus 42 micrometres')
    expect(spoken('−1.5 thou, +3 × 0.01 mm')).toBe('minus 1.5 thou, plus 3 hundredths')
  })

  it('uses a voice of this machine alone: another would send the words away', () => {
    expect(localVoice([voice('en-GB', false)])).toBeNull()
    expect(localVoice([voice('de-DE', true), voice('en-GB', true)])?.lang).toBe('en-GB')
    expect(localVoice([voice('en-GB', false), voice('de-DE', true)])?.lang).toBe('de-DE')
    expect(localVoice([])).toBeNull()
  })

  describe('on a machine with a voice', () => {
    const said: string[] = []
    const cancel = vi.fn()
    beforeEach(() => {
      said.length = 0
      cancel.mockClear()
      vi.stubGlobal(
        'SpeechSynthesisUtterance',
        class {
          constructor(readonly text: string) {}
        },
      )
      vi.stubGlobal('speechSynthesis', {
        getVoices: () => [voice('en-GB', true)],
        cancel,
        speak: (one: { text: string }) => said.push(one.text),
      })
    })
    afterEach(() => {
      readBack.value = 'tone'
      vi.unstubAllGlobals()
    })

    it('says nothing while off or by tone, each reading by speech, and all that follows aloud', () => {
      for (const [chosen, heard] of [
        ['off', []],
        ['tone', []],
        ['speech', ['plus 42']],
        ['aloud', ['plus 42', 'hole 5 at 3 h']],
      ] as const) {
        said.length = 0
        readBack.value = chosen
        tell('+42', true)
        sayAlso('hole 5 at 3 h')
        expect(said).toEqual(heard)
      }
    })

    it('breaks off what is still being said for what is newer', () => {
      readBack.value = 'speech'
      tell('54', true)
      expect(cancel).toHaveBeenCalledOnce()
      sayAlso('and more')
      expect(cancel).toHaveBeenCalledOnce()
    })

    it('says what is asked for by a key whatever is chosen', () => {
      readBack.value = 'off'
      speakNow('hole 5')
      expect(hasVoice()).toBe(true)
      expect(said).toEqual(['hole 5'])
    })
  })
})
