/** Where everything of a route stands on its drawing: columns along the rule, marks under them, arcs over them. */
import type { ArcView, HoldView, Operation, OperationView, SchoolView, State } from '@/api/generated'

export const WIDE = 1240
/** Room for the names of rows on the left, and on the right for the end of the rule. */
const LEFT = 66
const RIGHT = 8
const LEAST = 54

export interface Column {
  key: string
  /** More than one where what is done was put together. */
  operations: OperationView[]
  title: string[]
  words: string
  hours: number
  x: number
  width: number
}

/** Operations in columns; those done before anything is open are put together, unless they are to be seen. */
export function columnsOf(operations: readonly OperationView[], together: boolean): Column[] {
  const open = operations.findIndex((one) => !one.is_done)
  const done = open < 0 ? operations.length : open
  const folded = together && done > 1 ? done : 0
  const groups = [
    ...(folded ? [operations.slice(0, folded)] : []),
    ...operations.slice(folded).map((one) => [one]),
  ]
  const hours = (group: readonly OperationView[]) => group.reduce((sum, one) => sum + one.hours, 0)
  const ticked = groups.reduce((sum, group) => sum + (group.length > 1 ? 1 : hours(group)), 0)
  const each = Math.max(0, WIDE - LEFT - RIGHT - groups.length * LEAST) / Math.max(ticked, 1)
  let x = LEFT
  return groups.map((group) => {
    const [first] = group as [OperationView, ...OperationView[]]
    const many = group.length > 1
    const width = LEAST + each * (many ? 1 : hours(group))
    const column: Column = {
      key: many ? 'done' : first.operation,
      operations: [...group],
      title: many ? [`${group.length} steps`, 'done'] : linesOf(first.short, width),
      words: `${Number(hours(group).toFixed(1))} h`,
      hours: hours(group),
      x,
      width,
    }
    x += width
    return column
  })
}

/** A title broken into lines as wide as its column, a word at least each. */
export function linesOf(title: string, width: number): string[] {
  const most = Math.max(6, Math.floor(width / 8.2))
  const lines: string[] = []
  for (const word of title.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length + 1 <= most)
      lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

export const columnOf = (columns: readonly Column[], operation: Operation) =>
  columns.find((column) => column.operations.some((one) => one.operation === operation))

export interface DrawnArc {
  key: string
  path: string
  tip: { x: number; y: number }
  open: boolean
  label: { x: number; y: number; text: string }
}

/** Arcs from what disturbs to what is read again; the wider one goes over the narrower. */
export function arcsOf(columns: readonly Column[], arcs: readonly ArcView[], base: number): DrawnArc[] {
  const middle = (operation: Operation) => {
    const column = columnOf(columns, operation)
    return column ? column.x + column.width / 2 : null
  }
  const spans = arcs.flatMap((arc) => {
    const [from, to] = [middle(arc.disturbing), middle(arc.disturbed)]
    return from === null || to === null || from === to ? [] : [{ arc, from, to }]
  })
  spans.sort((a, b) => a.from - a.to - (b.from - b.to))
  const levels: { left: number; right: number; level: number }[] = []
  return spans.map(({ arc, from, to }) => {
    const text = arcText(arc, columns)
    const half = Math.max((from - to) / 2, text.length * 3.6)
    const centre = Math.min(Math.max((from + to) / 2, half + 4), WIDE - half - 4)
    const [left, right] = [centre - half, centre + half]
    const under = levels.filter((one) => one.left < right && one.right > left)
    const level = Math.max(-1, ...under.map((one) => one.level)) + 1
    levels.push({ left, right, level })
    const top = base - 30 - level * 38
    return {
      key: `${arc.disturbing}-${arc.disturbed}`,
      path: `M${from} ${base}C${from} ${top} ${to} ${top} ${to} ${base - 8}`,
      tip: { x: to, y: base },
      open: arc.is_open,
      label: { x: centre, y: top + (base - top) * 0.25 - 6, text },
    }
  })
}

/** What is read again, and what that takes. */
const whatOf = (arc: ArcView) =>
  `${arc.quantities.length > 1 ? `${arc.quantities[0]} and more` : arc.quantities[0]}, ${Number(arc.hours.toFixed(2))} h`

const operationOf = (columns: readonly Column[], operation: Operation) =>
  columnOf(columns, operation)?.operations.find((one) => one.operation === operation)

function arcText(arc: ArcView, columns: readonly Column[]): string {
  return `${operationOf(columns, arc.disturbing)?.short.toLowerCase() ?? ''}: ${whatOf(arc)}`
}

/** An arc in words, where it stands under the operation that it comes from. */
export function arcWords(arc: ArcView, columns: readonly Column[]): string {
  return `${operationOf(columns, arc.disturbed)?.short.toLowerCase() ?? ''}: ${whatOf(arc)}`
}

export interface DrawnHold {
  number: number
  x: number
  /** How many stand at the same place before it. */
  beside: number
  hold: HoldView
  /** All of its holes. */
  holds: HoldView[]
}

/** One number for each hold point of the route, in the order of the work. */
export function holdsOf(columns: readonly Column[], holds: readonly HoldView[]): DrawnHold[] {
  const drawn: DrawnHold[] = []
  for (const hold of holds) {
    const same = drawn.find((one) => one.hold.hold === hold.hold && one.hold.before === hold.before)
    const column = columnOf(columns, hold.before)
    if (same) same.holds.push(hold)
    else if (column) drawn.push({ number: drawn.length + 1, x: column.x, beside: 0, hold, holds: [hold] })
  }
  const at = new Map<number, number>()
  for (const one of drawn) {
    one.beside = at.get(one.x) ?? 0
    at.set(one.x, one.beside + 1)
  }
  return drawn
}

/** What a hold point says of all its holes together: waiting before open before passed before clear. */
export function holdState(one: DrawnHold): HoldView['state'] {
  const order = ['waits', 'open', 'passed', 'clear'] as const
  return order.find((state) => one.holds.some((hold) => hold.state === state)) ?? 'clear'
}

export interface DrawnFork {
  key: string
  left: number
  right: number
  level: number
  text: string
}

function forkText(side: SchoolView['sides'][number]): string {
  const hours = side.hours ? `, ${side.hours > 0 ? '+' : '−'}${Math.abs(side.hours).toFixed(1)} h` : ''
  return `or ${side.name}${hours}`
}

/** Where another school would begin to go another way at one of these operations, in words. */
export function forkWords(schools: readonly SchoolView[], operations: readonly Operation[]): string[] {
  return schools.flatMap((school) =>
    school.sides
      .filter((side) => !side.chosen && side.first && side.last && operations.includes(side.first))
      .map(forkText),
  )
}

/** Brackets under the rule where another school would go another way; those that would lie on each other are left out. */
export function forksOf(columns: readonly Column[], schools: readonly SchoolView[]): DrawnFork[] {
  const drawn: DrawnFork[] = []
  for (const school of schools)
    for (const side of school.sides) {
      if (side.chosen || !side.first || !side.last) continue
      const [first, last] = [columnOf(columns, side.first), columnOf(columns, side.last)]
      if (!first || !last) continue
      const text = forkText(side)
      const left = first.x + 6
      const right = Math.min(WIDE - 4, Math.max(last.x + last.width - 4, left + text.length * 7.4))
      const level = [0, 1].find(
        (at) => !drawn.some((one) => one.level === at && one.left < right && one.right > left),
      )
      if (level !== undefined)
        drawn.push({ key: `${school.question}-${side.name}`, left, right, level, text })
    }
  return drawn
}

export interface DrawnMark {
  x: number
  /** Its row: those of the holes, then that of the block. */
  row: number
  state: State
  words: string
  /** There is room to say that it is to be read again. */
  told: boolean
}

/** What stands under a column: a mark for each of its holes, or one for the block. */
export function marksOf(column: Column, holes: readonly number[]): DrawnMark[] {
  const mark = (row: number, state: State, words: string): DrawnMark => ({
    x: column.x,
    row,
    state,
    words,
    told: state === 'read again' && column.width > 104,
  })
  if (column.operations.length > 1) return [...holes, null].map((_, row) => mark(row, 'in', 'done'))
  return column.operations.flatMap((one) =>
    one.scope === 'block'
      ? [mark(holes.length, one.evidence.state, one.evidence.words)]
      : one.holes.map((hole) => mark(holes.indexOf(hole.hole), hole.state, hole.words)),
  )
}

/** Where the work stands: the first open hole of what comes next. */
export function standsAt(
  columns: readonly Column[],
  next: Operation | null,
  holes: readonly number[],
): { column: Column; row: number } | null {
  const column = next && columnOf(columns, next)
  const one = column && column.operations.find((operation) => operation.operation === next)
  if (!column || !one) return null
  const open = one.holes.find((hole) => hole.state !== 'in')
  return { column, row: one.scope === 'hole' && open ? holes.indexOf(open.hole) : holes.length }
}

/** Graduations of a column: one each quarter hour, the hours longer, the beginning longest. */
export function ticksOf(column: Column): { x: number; high: number }[] {
  const count = column.operations.length > 1 ? 1 : Math.max(1, Math.round(column.hours * 4))
  return Array.from({ length: count }, (_, at) => ({
    x: column.x + (column.width * at) / count,
    high: at === 0 ? 9 : at % 4 === 0 ? 6 : 3.5,
  }))
}
