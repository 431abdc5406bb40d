import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick, ref } from 'vue'

import { useSpotDraft } from './useSpotDraft'

describe('what is typed for one spot', () => {
  beforeEach(() => localStorage.clear())

  it('never shows at another, and waits where it was typed', async () => {
    const at = ref('3·6')
    const { typed } = useSpotDraft('drafts', () => at.value)
    typed.value = '1.6'
    at.value = '4·12'
    expect(typed.value).toBe('')
    at.value = '3·6'
    expect(typed.value).toBe('1.6')
    await nextTick()
    expect(JSON.parse(localStorage.getItem('drafts') ?? '')).toEqual({ '3·6': '1.6' })
  })

  it('is forgotten for its own spot once it is taken, though the bench went on', async () => {
    const at = ref('3·6')
    const { typed, take } = useSpotDraft('drafts', () => at.value)
    typed.value = '1.6'
    await take(() => {
      at.value = '4·12'
      typed.value = '2.0'
      return Promise.resolve(true)
    })
    expect(typed.value).toBe('2.0')
    at.value = '3·6'
    expect(typed.value).toBe('')
  })

  it('stays where it was refused', async () => {
    const { typed, take } = useSpotDraft('drafts', () => '3·6')
    typed.value = 'a hair'
    await take(() => Promise.resolve(false))
    expect(typed.value).toBe('a hair')
  })

  it('is forgotten once what was asked about it is answered, and only then', async () => {
    const at = ref('3·6')
    const { typed, take, answer } = useSpotDraft('drafts', () => at.value)
    typed.value = '1.6'
    await take(() => Promise.resolve(false))
    await answer(() => Promise.resolve(false))
    expect(typed.value).toBe('1.6')
    await answer(() => {
      at.value = '4·12'
      return Promise.resolve(true)
    })
    at.value = '3·6'
    expect(typed.value).toBe('')
  })

  it('stays half typed where an answer settles a value of the gauge', async () => {
    const { typed, answer } = useSpotDraft('drafts', () => '3·6')
    typed.value = '2.'
    await answer(() => Promise.resolve(true))
    expect(typed.value).toBe('2.')
  })
})
