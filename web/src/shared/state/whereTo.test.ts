import { afterEach, describe, expect, it } from 'vitest'

import { focusOnOpened, titleOf } from './whereTo'

describe('where one is, in words', () => {
  it('names the view, the hole and the job', () => {
    expect(titleOf({ name: 'cut', params: { job: 'j', hole: '5' } }, 'Ferry')).toBe(
      'Cut, hole 5 · Ferry · Vallostasis',
    )
    expect(titleOf({ name: 'block', params: { lens: 'protrusion', hole: '' } }, 'Ferry')).toBe(
      'Protrusion · Ferry · Vallostasis',
    )
    expect(titleOf({ name: 'survey', params: { quantity: 'block bore', part: 'hole-2' } })).toBe(
      'Block bore, hole 2 · Vallostasis',
    )
    expect(titleOf({ name: 'shop-time', params: {} })).toBe('Hours of the shop · Vallostasis')
  })

  describe('focus', () => {
    afterEach(() => (document.body.innerHTML = ''))

    it('goes to the heading of what opened', () => {
      document.body.innerHTML = '<a href="#">link</a><main><h1>Bores</h1><input></main>'
      focusOnOpened()
      expect(document.activeElement?.tagName).toBe('H1')
    })

    it('stays where somebody types, or where the view put it', () => {
      document.body.innerHTML = '<main><h1>Bores</h1><button>b</button></main><input>'
      document.querySelector('input')?.focus()
      focusOnOpened()
      expect(document.activeElement?.tagName).toBe('INPUT')
      document.querySelector('button')?.focus()
      focusOnOpened()
      expect(document.activeElement?.tagName).toBe('BUTTON')
    })

    it('goes to the work itself where nothing heads it', () => {
      document.body.innerHTML = '<main><p>deck</p></main>'
      focusOnOpened()
      expect(document.activeElement?.tagName).toBe('MAIN')
    })
  })
})
