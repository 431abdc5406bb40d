/** A piece of work on the lane of a machine or a person. */
export interface LanePiece {
  x: number
  width: number
  job: string
  what: string
  id: string
}
