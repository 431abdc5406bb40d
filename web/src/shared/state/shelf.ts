/** What this browser keeps for a time without the application: readings that wait, blocks as last seen. */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

import type { BlockView, ParseRequest, ReadingBody } from '@/api/generated'

/** A reading that waits. A line of the entry line is kept as typed, with the place chosen then. */
export interface WaitingReading {
  order?: number
  jobId: string
  body: ReadingBody
  /** The entry line's own text, empty where hole and position are known already. */
  line: string
  /** Holes of the block, which the line may name. */
  holes: number[]
  /** What else the line may name: levels and axes of a bore. */
  bore?: BoreLine | undefined
  /** When it was taken, by this machine's clock. [ms] */
  takenAt: number
}

export type BoreLine = Pick<
  ParseRequest,
  'levels' | 'axes_deg' | 'depth_unit' | 'present_level_um' | 'present_axis_deg'
>

export interface SeenBlock {
  jobId: string
  block: BlockView
  seenAt: number
}

interface Shelf extends DBSchema {
  waiting: { key: number; value: WaitingReading }
  blocks: { key: string; value: SeenBlock }
}

let opened: Promise<IDBPDatabase<Shelf>> | null = null

export function shelf(): Promise<IDBPDatabase<Shelf>> {
  opened ??= openDB<Shelf>('vallostasis', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'order', autoIncrement: true })
      db.createObjectStore('blocks', { keyPath: 'jobId' })
    },
  })
  return opened
}
