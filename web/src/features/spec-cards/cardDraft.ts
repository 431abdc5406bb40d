/** A spec card while it is edited: lists are typed as text, everything else as the card keeps it. */
import type { InjectionKey, Ref } from 'vue'
import { computed, inject, ref } from 'vue'

import type {
  BoreTerms,
  ConversionTerms,
  FitTerms,
  CardLevel,
  FeatureSheet,
  Length,
  Limit,
  Quantity,
  ReadingBody,
  SpecCard,
} from '@/api/generated'
import type { LayoutOf } from '@/shared/charts/deck'
import { newtonMetres } from '@/shared/format/others'

/** A feature while it is edited: its places are typed as text. */
export interface SheetDraft {
  sheet: FeatureSheet
  levels: string
  axes: string
  hours: string
  along: string
  across: string
}

export interface CardDraft {
  card: SpecCard
  features: SheetDraft[]
  heads: string
  banks: string
  hours: string
  basedOn: number
}

/** Fields that were asked first: they do not stand a second time where the rest of the card is. */
export const ASKED: InjectionKey<Ref<ReadonlySet<string>>> = Symbol('asked first')

export function useIsAsked(path: () => string, always: () => boolean): Ref<boolean> {
  const asked = inject(ASKED, ref(new Set<string>()))
  return computed(() => !always() && asked.value.has(path()))
}

/** What stands at a path of a card, such as limits.least_without_shim. */
export function at(card: SpecCard, path: string): unknown {
  return path.split('.').reduce<unknown>((part, key) => (part as Record<string, unknown>)[key], card)
}

export function put(card: SpecCard, path: string, value: unknown): void {
  const keys = path.split('.')
  const last = keys.pop() ?? ''
  const parent = keys.reduce<unknown>((part, key) => (part as Record<string, unknown>)[key], card)
  ;(parent as Record<string, unknown>)[last] = value
}

export const shimsText = (shims: SpecCard['shims']) => shims.map((one) => one.thickness.typed).join(' ')

/** Shims typed on one line; what is known of one that stays, stock and price, stays with it. */
export function shimsOf(text: string, before: SpecCard['shims']): SpecCard['shims'] {
  return text
    .split(/[\s;]+/)
    .filter((typed) => typed !== '')
    .map(
      (typed) =>
        before.find((one) => one.thickness.typed === typed) ?? {
          thickness: { typed },
          stock: 0,
          price: null,
        },
    )
}

export type LimitStatus = NonNullable<Limit['status']>
const KNOWN_FROM: LimitStatus[] = ['specification', 'common practice', 'own experience', 'unverified']
export const STATUSES = KNOWN_FROM.map((status) => ({ value: status, label: status }))

export const NUMBERINGS = [
  'number one at the front, counted back',
  'number one at the flywheel end, counted forward',
]

export const CARD: InjectionKey<Ref<CardDraft>> = Symbol('card draft')

export function useCard(): Ref<CardDraft> {
  const draft = inject(CARD)
  if (!draft) throw new Error('This part belongs inside a card form.')
  return draft
}

const length = (typed = ''): Length => ({ typed })
const limit = (): Limit => ({ length: null, source: '', status: 'unverified' })

/** A new card: what is common practice is filled in and says so, what only the book knows is empty. */
export function emptyCard(): SpecCard {
  return {
    name: '',
    engine: '',
    unit: 'mm',
    construction: 'wet liner, top flange',
    block_material: 'grey iron',
    liner_material: 'cast iron',
    layout: {
      arrangement: 'in-line',
      holes: 6,
      heads: [[1, 2, 3, 4, 5, 6]],
      numbering: NUMBERINGS[0] ?? '',
      twelve_o_clock: '',
      bore_pitch: length(),
      bore: length(),
      bank_angle_deg: null,
      banks: [],
      bank_offset: length('0'),
    },
    limits: {
      least_without_shim: limit(),
      greatest_without_shim: limit(),
      least_with_shim: limit(),
      greatest_with_shim: limit(),
      target_with_shim: limit(),
      variation_round: limit(),
      neighbour_difference: limit(),
      head_average_least: limit(),
      head_average_greatest: limit(),
    },
    seat: {
      flange_nominal: limit(),
      counterbore_nominal: limit(),
      ledge_at_nominal: limit(),
      ledge_least: limit(),
      cleanup_least: { length: null, source: 'an even witness all round', status: 'common practice' },
      sealing_land: limit(),
      flange_edge: limit(),
    },
    measuring: {
      land: 'flat land',
      datum: 'the clean deck beside the hole',
      between: [],
      hold_down: '',
      hold_down_torque_nm: null,
      required_hours: [12, 3, 6, 9],
    },
    lands: [{ name: 'flat land', raised: length('0'), note: '' }],
    shims: [],
    cutter: {
      name: '',
      graduation: length(),
      stop_accuracy: length(),
      graduation_error_percent: 5,
      bit_corner: limit(),
    },
    currency: '',
    acceptance: 'guarded',
    coverage_factor: 2,
    features: [],
    main_bores: 0,
    piston_material: 'aluminium',
    stroke: limit(),
    clearance_volume_cm3: null,
    heights: [],
    deck_kept: '',
    obstructions: [],
    bores: emptyBores(),
    fits: emptyFits(),
    conversion: emptyConversion(),
  }
}

/** What a card says of a conversion before anything is known of it. */
function emptyConversion(): ConversionTerms {
  return {
    proud_least: limit(),
    proud_greatest: limit(),
    clean_up: limit(),
    least_flange: limit(),
    upper_register: limit(),
    lower_register: limit(),
    register_length: limit(),
    off_line: limit(),
    insert_press: { least: limit(), aim: limit(), greatest: limit() },
    insert_inside: limit(),
    rod_length: limit(),
    rod_width: limit(),
    big_end: limit(),
    crank_depth: limit(),
    crank_offset: limit(),
    offset_hour: null,
    rod_clear: limit(),
    fire_ring: limit(),
    gasket_clamped: limit(),
    liner_groove: limit(),
    head_groove: limit(),
    crush_least: limit(),
    crush_greatest: limit(),
    studs: null,
    stud_kn: null,
    stud_diameter: limit(),
    stud_length: limit(),
    stud_clamped: limit(),
    stud_thread: limit(),
    compound_gap: limit(),
    compound_band: limit(),
    seals: [],
  }
}

/** The conversion of a card while it is edited. */
export function conversionOf(card: SpecCard): ConversionTerms {
  if (!card.conversion) throw new Error('A card that is edited has its conversion.')
  return card.conversion
}

/** What a card says of its fits before anything is known of them. */
function emptyFits(): FitTerms {
  const window = () => ({ least: limit(), aim: limit(), greatest: limit() })
  return {
    light: window(),
    firm: window(),
    boss_outside: limit(),
    liner_length: limit(),
    liner_inside: limit(),
    bore_rz: limit(),
    liner_rz: limit(),
    lead_in: limit(),
    least_liner_wall: limit(),
    least_boss_wall: limit(),
    stop: 'stop at contact',
    dwell_kn: null,
    dwell_min: null,
    holder: 'not known',
    clamp_kn: null,
    clamp_loss_kn: null,
    drag_kn: null,
    holding_source: '',
    seat: 'top flange',
    seat_depth: limit(),
    neighbour_gap: limit(),
    running: [],
    compound: '',
    compound_cure_h: null,
    seals: '',
  }
}

/** The fits of a card while it is edited. */
export function fitsOf(card: SpecCard): FitTerms {
  if (!card.fits) throw new Error('A card that is edited has its fits.')
  return card.fits
}

/** What a card says of its bores before anything is known of them. */
function emptyBores(): BoreTerms {
  return {
    ring_top: limit(),
    ring_bottom: limit(),
    thrust_hour: null,
    judged: 'as read',
    plate_fasteners: '',
    plate_gasket: '',
    plate_torque_nm: null,
    hone_stock: limit(),
    centre_move: limit(),
    wall: limit(),
    least_wall: limit(),
    rebore: limit(),
    all_alike: true,
    bore_runs_c: null,
    piston_runs_c: null,
    runs_with: limit(),
    ladder: [],
  }
}

/** The bores of a card while it is edited. */
export function boresOf(card: SpecCard): BoreTerms {
  if (!card.bores) throw new Error('A card that is edited has its bores.')
  return card.bores
}

export const emptySheet = (quantity: Quantity): SheetDraft => sheetDraft({ quantity })

function sheetDraft(sheet: FeatureSheet): SheetDraft {
  return {
    sheet,
    levels: (sheet.levels ?? []).map((level) => `${level.name} ${level.depth.typed}`.trim()).join(', '),
    axes: (sheet.axes_deg ?? []).join(' '),
    hours: (sheet.hours ?? []).join(' '),
    along: lengthsText(sheet.along ?? []),
    across: lengthsText(sheet.across ?? []),
  }
}

export const lengthsText = (lengths: readonly Pick<Length, 'typed'>[]) =>
  lengths.map((one) => one.typed).join(', ')

/** Levels typed as names with a depth, parted by commas: top 15, middle 90. */
export function levelsOf(text: string): CardLevel[] {
  return text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((part) => {
      const [, name = '', typed = part] = /^(.*?)\s*([-+−]?[\d.].*)$/.exec(part) ?? []
      return { name: name.trim(), depth: { typed } }
    })
}

const lengthsOf = (text: string): Length[] =>
  text
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .map((typed) => ({ typed }))

function sheetOf(draft: SheetDraft): FeatureSheet {
  return {
    ...draft.sheet,
    levels: levelsOf(draft.levels),
    axes_deg: numbersOf(draft.axes),
    hours: numbersOf(draft.hours),
    along: lengthsOf(draft.along),
    across: lengthsOf(draft.across),
  }
}

export function draftOf(card: SpecCard, basedOn: number): CardDraft {
  const copy = JSON.parse(JSON.stringify(card)) as SpecCard
  copy.bores = { ...emptyBores(), ...copy.bores }
  copy.fits = { ...emptyFits(), ...copy.fits }
  copy.conversion = { ...emptyConversion(), ...copy.conversion }
  return {
    card: copy,
    features: (copy.features ?? []).map(sheetDraft),
    heads: groupsText(copy.layout.heads),
    banks: groupsText(copy.layout.banks ?? []),
    hours: copy.measuring.required_hours.join(', '),
    basedOn,
  }
}

/** Numbers of a list typed with spaces or commas; what is no number goes as it is typed, for the check to name it. */
function numbersOf(text: string): number[] {
  return text
    .split(/[\s,;]+/)
    .map((part) => part.replace(/h$/i, ''))
    .filter((part) => part !== '')
    .map((part) => (Number.isFinite(Number(part)) ? Number(part) : (part as unknown as number)))
}

/** Groups of holes, typed as 1 2 3 / 4 5 6. */
export function groupsOf(text: string | undefined): number[][] {
  return (text ?? '')
    .split('/')
    .map(numbersOf)
    .filter((group) => group.length > 0)
}

function groupsText(groups: readonly (readonly number[])[]): string {
  return groups.map((group) => group.join(' ')).join(' / ')
}

export function cardOf(draft: CardDraft): SpecCard {
  const { card } = draft
  return {
    ...card,
    // A card is mostly named by its engine.
    engine: card.engine.trim() === '' ? card.name : card.engine,
    layout: {
      ...card.layout,
      heads: groupsOf(draft.heads),
      banks: card.layout.arrangement === 'V' ? groupsOf(draft.banks) : [],
    },
    shims: card.shims.map((shim) => ({ ...shim, price: shim.price === '' ? null : shim.price })),
    measuring: {
      ...card.measuring,
      required_hours: numbersOf(draft.hours),
      hold_down_torque_nm: newtonMetres(card.measuring.hold_down_torque_nm) as number | null,
    },
    features: draft.features.map(sheetOf),
  }
}

/** Limits that go by one name wherever they stand. */
export const LIMIT_NAMES: Record<string, string> = { cleanup_least: 'least clean-up cut' }

export type LimitName = 'nominal' | 'least' | 'greatest' | 'out_of_round' | 'taper'

/** Unit of a bare number: small lengths of an inch card are thou. */
export function bareOf(isSize: boolean, unit: SpecCard['unit']): ReadingBody['bare_unit'] {
  if (unit === 'mm') return 'mm'
  return isSize ? 'inch' : 'thou'
}

/** Fields that differ between two cards, by their paths; exact values that follow from text are left out. */
export function differingFields(first: unknown, second: unknown, path = ''): string[] {
  if (typeof first === 'object' && typeof second === 'object' && first !== null && second !== null) {
    const keys = new Set([...Object.keys(first), ...Object.keys(second)])
    return [...keys]
      .filter((key) => key !== 'um')
      .flatMap((key) =>
        differingFields(
          (first as Record<string, unknown>)[key],
          (second as Record<string, unknown>)[key],
          path ? `${path}.${key}` : key,
        ),
      )
  }
  return first === second || plain(first) === plain(second) ? [] : [path]
}

/** A value of a card as text; nothing where there is none. */
function plain(value: unknown): string {
  if (value === null || value === undefined) return ''
  return typeof value === 'string' ? value : JSON.stringify(value)
}

/** What stands at a path of a card, in words. */
export function valueAt(card: unknown, path: string): string {
  const value = path
    .split('.')
    .reduce<unknown>((part, key) => (part as Record<string, unknown> | null | undefined)?.[key], card)
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value !== 'object') return plain(value)
  const texts = (part: unknown): string[] => {
    if (part === null || part === undefined || part === '') return []
    if (typeof part !== 'object') return [plain(part)]
    return Object.entries(part).flatMap(([key, one]) => (key === 'um' ? [] : texts(one)))
  }
  return texts(value).join(', ')
}

export function wordsOf(path: string): string {
  return path
    .replace(/(\.length)?(\.typed)?$/, '')
    .replaceAll('_', ' ')
    .replaceAll('.', ' · ')
}

/** What the drawing needs, from a card still being typed: sizes are read as plain numbers where they are some. */
export function layoutOf(draft: CardDraft): LayoutOf {
  const { layout } = draft.card
  const isV = layout.arrangement === 'V'
  const counted = Array.from({ length: Math.min(16, Number(layout.holes) || 0) }, (_, index) => index + 1)
  const inLine = layout.numbering.startsWith('number one at the flywheel end') ? counted.reverse() : counted
  const drawn = (text: string) => groupsOf(text).map((group) => group.filter(Number.isFinite))
  const banks = drawn(draft.banks)
  const plain = (typed: string | undefined) =>
    Number((typed ?? '').replace(',', '.').match(/^[\d.]+/)?.[0] ?? NaN)
  return {
    arrangement: layout.arrangement,
    banks: isV && banks.length > 0 ? banks : [inLine],
    bank_offset_m: plain(layout.bank_offset?.typed),
    heads: drawn(draft.heads),
    bore_m: plain(layout.bore.typed),
    bore_pitch_m: plain(layout.bore_pitch.typed),
  }
}
