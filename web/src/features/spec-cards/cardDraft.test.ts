import { describe, expect, it } from 'vitest'

import {
  at,
  cardOf,
  differingFields,
  draftOf,
  emptyCard,
  emptySheet,
  layoutOf,
  levelsOf,
  put,
  shimsOf,
  shimsText,
  valueAt,
  wordsOf,
} from './cardDraft'

describe('card draft', () => {
  it('comes back as the card it was made from', () => {
    const card = { ...emptyCard(), name: 'Fennick 6W', engine: 'Fennick 6W' }
    expect(cardOf(draftOf(card, 3))).toEqual(card)
  })

  it('reads heads and hours as they are typed', () => {
    const draft = { ...draftOf(emptyCard(), 0), heads: '1,2,3 / 4 5 6', hours: '12h 3h, 6;9' }
    expect(cardOf(draft).layout.heads).toEqual([
      [1, 2, 3],
      [4, 5, 6],
    ])
    expect(cardOf(draft).measuring.required_hours).toEqual([12, 3, 6, 9])
  })

  it('reads levels with their names and depths, and axes as they are typed', () => {
    const sheet = {
      ...emptySheet('block bore'),
      levels: 'top 15, below the rings 7 5/16, 190',
      axes: '0 45,90',
    }
    const [read] = cardOf({ ...draftOf(emptyCard(), 0), features: [sheet] }).features ?? []
    expect(read?.levels).toEqual([
      { name: 'top', depth: { typed: '15' } },
      { name: 'below the rings', depth: { typed: '7 5/16' } },
      { name: '', depth: { typed: '190' } },
    ])
    expect(read?.axes_deg).toEqual([0, 45, 90])
    expect(levelsOf('deck edge -3')).toEqual([{ name: 'deck edge', depth: { typed: '-3' } }])
  })

  it('sends what is no number as it is typed, so that the check can name it', () => {
    const draft = { ...draftOf(emptyCard(), 0), hours: '12 six 9', heads: '1 2 b / 4 5 6' }
    expect(cardOf(draft).measuring.required_hours).toEqual([12, 'six', 9])
    expect(cardOf(draft).layout.heads[0]).toEqual([1, 2, 'b'])
    expect(layoutOf(draft).heads).toEqual([
      [1, 2],
      [4, 5, 6],
    ])
  })

  it('never touches the card it was made from', () => {
    const card = emptyCard()
    draftOf(card, 1).card.layout.holes = 4
    expect(card.layout.holes).toBe(6)
  })

  it('names what two people changed differently', () => {
    const mine = emptyCard()
    const theirs = emptyCard()
    theirs.limits.variation_round = { length: { typed: '0.04' }, source: 'book', status: 'specification' }
    const paths = differingFields(theirs, mine)
    expect(paths).toContain('limits.variation_round.source')
    expect(differingFields(mine, emptyCard())).toEqual([])
    expect(wordsOf('limits.variation_round.length')).toBe('limits · variation round')
    expect(wordsOf('limits.variation_round.length.typed')).toBe('limits · variation round')
  })

  it('says what stands at each side of a field', () => {
    const mine = emptyCard()
    const theirs = emptyCard()
    theirs.limits.variation_round = { length: { typed: '0.04 mm' }, source: 'book', status: 'specification' }
    theirs.shims = [{ thickness: { typed: '0.1 mm' }, stock: 3, price: null }]
    expect(valueAt(theirs, 'limits.variation_round.length')).toBe('0.04 mm')
    expect(valueAt(mine, 'limits.variation_round.length')).toBe('nothing')
    expect(differingFields(theirs, mine)).toContain('shims.0')
    expect(valueAt(theirs, 'shims.0')).toBe('0.1 mm, 3')
    expect(valueAt(mine, 'shims.0')).toBe('nothing')
    expect(valueAt(mine, 'limits.variation_round.source')).toBe('nothing')
  })

  it('takes no notice of exact values that follow from the text', () => {
    expect(differingFields({ typed: '1', um: '1000' }, { typed: '1', um: 1000.0 })).toEqual([])
  })
})

describe('what is asked first', () => {
  it('reads shims from one line and keeps what is known of each', () => {
    const before = [{ thickness: { typed: '0.2' }, stock: 4, price: '3' }]
    const shims = shimsOf(' 0.1  0.2; 0.5', before)
    expect(shims.map((one) => [one.thickness.typed, one.stock])).toEqual([
      ['0.1', 0],
      ['0.2', 4],
      ['0.5', 0],
    ])
    expect(shimsText(shims)).toBe('0.1 0.2 0.5')
  })

  it('finds and puts what stands at a path', () => {
    const card = emptyCard()
    put(card, 'cutter.graduation', { typed: '0.02' })
    expect(at(card, 'cutter.graduation')).toEqual({ typed: '0.02' })
    expect(card.cutter.graduation.typed).toBe('0.02')
  })

  it('names the engine by the card where nobody says more', () => {
    expect(cardOf(draftOf({ ...emptyCard(), name: 'Twin' }, 0)).engine).toBe('Twin')
  })
})
