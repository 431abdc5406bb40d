import { describe, expect, it } from 'vitest'

import { atHoles, hold, operation, route, school } from '@/testing/route'

import {
  arcsOf,
  arcWords,
  columnOf,
  columnsOf,
  forksOf,
  forkWords,
  holdsOf,
  holdState,
  linesOf,
  marksOf,
  standsAt,
  ticksOf,
  WIDE,
} from './drawing'

const { operations } = route()

describe('columns along the rule', () => {
  it('puts together what was done before anything is open, and shows it when asked', () => {
    const [done, first, ...rest] = columnsOf(operations, true)
    expect(done).toMatchObject({ key: 'done', hours: 2, title: ['2 steps', 'done'] })
    expect(first?.key).toBe('fit')
    expect(rest).toHaveLength(4)
    expect(columnsOf(operations, false)).toHaveLength(7)
    expect(columnsOf(operations.slice(1), true)[0]?.key).toBe('strip')
  })

  it('fills the drawing to its end, one column after the other, wider for more hours', () => {
    const columns = columnsOf(operations, false)
    for (const [at, column] of columns.entries()) {
      const next = columns[at + 1]
      if (next) expect(next.x).toBeCloseTo(column.x + column.width)
      else expect(column.x + column.width).toBeCloseTo(WIDE - 8)
    }
    const width = (name: 'fit' | 'seat') => columnOf(columns, name)?.width ?? 0
    expect(width('fit')).toBeGreaterThan(width('seat'))
  })

  it('is one column where everything is done', () => {
    const all = operations.map((one) => ({ ...one, is_done: true }))
    expect(columnsOf(all, true).map((column) => column.key)).toEqual(['done'])
  })

  it('breaks a title into lines a column can hold', () => {
    expect(linesOf('Ready to fit', 60)).toEqual(['Ready', 'to fit'])
    expect(linesOf('Ready to fit', 200)).toEqual(['Ready to fit'])
    expect(linesOf('Align-hone', 40)).toEqual(['Align-hone'])
  })

  it('has a graduation each quarter hour, the first the longest', () => {
    const column = columnOf(columnsOf(operations, false), 'fit')
    const ticks = column ? ticksOf(column) : []
    expect(ticks).toHaveLength(8)
    expect(Math.max(...ticks.map((tick) => tick.high))).toBe(ticks[0]?.high)
    expect(ticks[4]?.high).toBeGreaterThan(ticks[3]?.high ?? 99)
  })
})

describe('arcs over the rule', () => {
  const arc = (disturbing: 'deck' | 'wash', disturbed: 'fit' | 'seat', is_open = false) => ({
    disturbing,
    disturbed,
    quantities: ['protrusion' as const],
    hours: 0.3,
    is_open,
  })
  const columns = columnsOf(operations, false)

  it('go from what disturbs back to what is read again, with what it costs', () => {
    const [drawn] = arcsOf(columns, [arc('deck', 'seat', true)], 0)
    const [deck, seat] = [columnOf(columns, 'deck'), columnOf(columns, 'seat')]
    expect(drawn?.tip.x).toBeCloseTo((seat?.x ?? 0) + (seat?.width ?? 0) / 2)
    expect(drawn?.path.startsWith(`M${(deck?.x ?? 0) + (deck?.width ?? 0) / 2} 0`)).toBe(true)
    expect(drawn).toMatchObject({ open: true, label: { text: 'deck: protrusion, 0.3 h' } })
  })

  it('lie over each other only at different heights', () => {
    const drawn = arcsOf(columns, [arc('wash', 'fit'), arc('deck', 'seat')], 0)
    expect(new Set(drawn.map((one) => one.label.y)).size).toBe(2)
    expect(drawn[0]?.key).toBe('deck-seat')
  })

  it('stand in words under what they come from, where the route runs down', () => {
    expect(arcWords(arc('deck', 'seat'), columns)).toBe('seat: protrusion, 0.3 h')
  })

  it('keep their words inside the drawing, and leave out what is put together', () => {
    const drawn = arcsOf(columnsOf(operations, true), [{ ...arc('deck', 'fit'), disturbed: 'strip' }], 0)
    expect(drawn[0]?.label.x).toBeGreaterThan(0)
    expect(arcsOf(columnsOf(operations, true), [{ ...arc('deck', 'fit'), disturbing: 'bore' }], 0)).toEqual(
      [],
    )
  })
})

describe('hold points', () => {
  it('have one number each, whatever their holes, and stand beside each other', () => {
    const columns = columnsOf(operations, false)
    const drawn = holdsOf(columns, [
      hold('fit', 'passed', { hole: 1 }),
      hold('fit', 'waits', { hole: 2 }),
      hold('fit', 'clear', { hold: 'ready to fit' }),
      hold('deck', 'open'),
    ])
    expect(drawn.map((one) => [one.number, one.beside, one.holds.length])).toEqual([
      [1, 0, 2],
      [2, 1, 1],
      [3, 0, 1],
    ])
    expect(drawn.map(holdState)).toEqual(['waits', 'clear', 'open'])
  })

  it('of an operation that is not drawn are left out', () => {
    expect(holdsOf(columnsOf(operations, false), [hold('bore', 'open')])).toEqual([])
  })
})

describe('forks under the rule', () => {
  it('span what the other side would touch, and say the hours', () => {
    const columns = columnsOf(operations, false)
    const [fork] = forksOf(columns, [school()])
    expect(fork?.text).toBe('or heat and cold, +0.5 h')
    expect(fork?.left).toBeGreaterThan(columnOf(columns, 'fit')?.x ?? 0)
    expect(fork?.right).toBeLessThanOrEqual(WIDE)
  })

  it('go one under the other, and no deeper than two', () => {
    const schools = ['a', 'b', 'c'].map((question) => school({ question }))
    expect(forksOf(columnsOf(operations, false), schools).map((one) => one.level)).toEqual([0, 1])
  })

  it('are none where nothing would change', () => {
    const same = school({ sides: school().sides.map((side) => ({ ...side, first: null, last: null })) })
    expect(forksOf(columnsOf(operations, false), [same])).toEqual([])
  })
})

describe('marks under the columns', () => {
  const columns = columnsOf(operations, false)
  it('stand in the row of their hole, or in that of the block', () => {
    const marks = (name: 'fit' | 'deck') => {
      const column = columnOf(columns, name)
      return column ? marksOf(column, [1, 2]).map((mark) => [mark.row, mark.state]) : []
    }
    expect(marks('fit')).toEqual([
      [0, 'in'],
      [1, 'not measured'],
    ])
    expect(marks('deck')).toEqual([[2, 'not measured']])
  })

  it('are done in every row where steps were put together', () => {
    const [done] = columnsOf(operations, true)
    expect(done ? marksOf(done, [1, 2]).map((mark) => mark.state) : []).toEqual(['in', 'in', 'in'])
  })

  it('say that they are to be read again where there is room', () => {
    const wide = columnsOf([operation('seat', { scope: 'hole', holes: atHoles({ 1: 'read again' }) })], false)
    expect(wide[0] && marksOf(wide[0], [1])[0]?.told).toBe(true)
  })
})

describe('where the work stands', () => {
  const columns = columnsOf(operations, true)
  it('is at the first open hole of what comes next', () => {
    expect(standsAt(columns, 'fit', [1, 2])).toMatchObject({ column: { key: 'fit' }, row: 1 })
  })
  it('is at the block where that is the scope, and nowhere when all is done', () => {
    expect(standsAt(columns, 'deck', [1, 2])?.row).toBe(2)
    expect(standsAt(columns, null, [1, 2])).toBeNull()
  })
})

describe('the route in words, for a screen on which it runs down', () => {
  it('says where another school would begin to go another way, and not where this one goes', () => {
    const asked = school()
    const other = asked.sides.find((side) => !side.chosen && side.first)
    expect(other).toBeDefined()
    expect(forkWords([asked], [other!.first!])[0]).toContain(`or ${other!.name}`)
    expect(forkWords([asked], [])).toEqual([])
    const chosen = { ...asked, sides: asked.sides.map((side) => ({ ...side, chosen: true })) }
    expect(forkWords([chosen], [other!.first!])).toEqual([])
  })
})
