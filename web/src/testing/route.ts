/** A route as the application answers it, for unit tests. */
import type {
  HoldView,
  Operation,
  OperationView,
  RouteView,
  SchoolView,
  State,
  WaitView,
} from '@/api/generated'

export function operation(name: Operation, more: Partial<OperationView> = {}): OperationView {
  const state: State = more.is_done ? 'in' : 'not measured'
  return {
    operation: name,
    title: name[0]?.toUpperCase() + name.slice(1),
    short: name,
    scope: 'block',
    hours: 1,
    worked_h: 0,
    evidence: { state, words: more.is_done ? 'done' : 'not done yet', at: null, by: '' },
    is_done: false,
    is_ready: true,
    waits_for: [],
    by_hand: true,
    irreversible: false,
    foreseen: [],
    asks: '',
    counts: '',
    caution: [],
    risks: [],
    holes: [],
    holds: [],
    ...more,
  }
}

export const atHoles = (states: Record<number, State>) =>
  Object.entries(states).map(([hole, state]) => ({
    hole: Number(hole),
    state,
    words: state === 'in' ? 'done' : 'not done yet',
    at: state === 'in' ? '2026-11-20T10:00:00Z' : null,
    by: state === 'in' ? 'Wren' : '',
  }))

export function hold(before: Operation, state: HoldView['state'], more: Partial<HoldView> = {}): HoldView {
  return {
    hold: 'piston first',
    words: 'No boring before the piston is measured',
    before,
    hole: null,
    state,
    missing: state === 'clear' ? '' : 'the piston of hole 1 is not measured',
    passed_by: '',
    passed_at: null,
    reason: '',
    ...more,
  }
}

export function wait(more: Partial<WaitView> = {}): WaitView {
  return {
    wait_id: 'w1',
    operation: 'hone',
    title: 'Hone',
    cause: 'part',
    words: 'piston 3',
    hole: null,
    since: '2026-11-20T10:00:00Z',
    noted_by: 'Ines',
    expected: '2026-12-08',
    ended: null,
    end_words: '',
    lasted_h: 96,
    ...more,
  }
}

export function school(more: Partial<SchoolView> = {}): SchoolView {
  const side = (name: string, chosen: boolean) => ({
    name,
    reason: `why ${name}`,
    chosen,
    added: [],
    removed: [],
    moved: [],
    hours: chosen ? 0 : 0.5,
    first: chosen ? null : ('fit' as const),
    last: chosen ? null : ('seat' as const),
  })
  return {
    question: 'getting in',
    title: 'Getting the liner in',
    sides: [side('press cold', true), side('heat and cold', false)],
    settled_by: 'heights read cold on both ways',
    because: '',
    chosen_by: '',
    ...more,
  }
}

export function route(more: Partial<RouteView> = {}): RouteView {
  return {
    operations: [
      operation('take-in', { is_done: true, hours: 0.5 }),
      operation('strip', { is_done: true, hours: 1.5 }),
      operation('fit', {
        scope: 'hole',
        hours: 2,
        holes: atHoles({ 1: 'in', 2: 'not measured' }),
        by_hand: false,
      }),
      operation('seat', { scope: 'hole', hours: 1, holes: atHoles({ 1: 'read again', 2: 'not measured' }) }),
      operation('deck', { irreversible: true, asks: 'how much came off' }),
      operation('wash', { counts: 'plugs out' }),
      operation('release'),
    ],
    next: 'fit',
    holds: [],
    waits: [],
    clocks: { worked_h: 3, planned_h: 8, done_h: 2, waited_h: 96, is_waiting: false, running: [] },
    arcs: [],
    reopened: [],
    schools: [school()],
    open_points: [],
    event: 1,
    ...more,
  }
}
