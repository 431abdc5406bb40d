/** The wall as a body: a cylinder whose radius swings by what was read, many times magnified. */
import type { FieldView } from '@/api/generated'

import type { Shown } from './shown'

export interface Mesh {
  rows: number
  columns: number
  /** x, y, z of every corner, row by row; the bore is about two across. */
  corners: number[][]
  /** Share of the greatest swing at every corner, -1 to 1; null where nothing was read. */
  shares: (number | null)[]
  times: number
}

const SWING = 0.22

/** The field as corners of a body; what was not read leaves a hole. */
export function meshOf(field: FieldView, shown: Pick<Shown, 'offset' | 'kind'>, bore: number): Mesh {
  const side = shown.kind === 'wear' ? 1 : 0.5
  const swings = field.values_m.map((row) =>
    row.map((one) => (one === null ? null : (one - shown.offset) * side)),
  )
  const most = Math.max(1e-9, ...swings.flat().map((one) => Math.abs(one ?? 0)))
  const first = field.depths_m[0] ?? 0
  const middle = (first + (field.depths_m.at(-1) ?? 0)) / 2
  const corners: number[][] = []
  const shares: (number | null)[] = []
  field.depths_m.forEach((depth, row) => {
    field.angles_deg.forEach((angle, column) => {
      const swing = swings[row]?.[column] ?? null
      const r = 1 + ((swing ?? 0) / most) * SWING
      const turn = (angle * Math.PI) / 180
      corners.push([-r * Math.cos(turn), ((middle - depth) / bore) * 2, -r * Math.sin(turn)])
      shares.push(swing === null ? null : swing / most)
    })
  })
  const times = Math.max(1, Math.round((SWING * bore) / 2 / most / 10) * 10)
  return { rows: field.depths_m.length, columns: field.angles_deg.length, corners, shares, times }
}

/** Faces between neighbouring corners that were all read: four corners and their mean share. */
export function facesOf(mesh: Mesh): { at: [number, number, number, number]; share: number }[] {
  const faces: { at: [number, number, number, number]; share: number }[] = []
  for (let row = 0; row + 1 < mesh.rows; row++) {
    for (let column = 0; column < mesh.columns; column++) {
      const next = (column + 1) % mesh.columns
      const at: [number, number, number, number] = [
        row * mesh.columns + column,
        row * mesh.columns + next,
        (row + 1) * mesh.columns + next,
        (row + 1) * mesh.columns + column,
      ]
      const shares = at.map((one) => mesh.shares[one] ?? null)
      if (shares.every((one) => one !== null))
        faces.push({ at, share: shares.reduce((sum: number, one) => sum + (one ?? 0), 0) / 4 })
    }
  }
  return faces
}

/** Red, green, blue of a share: copper for larger, blue for smaller, paper for nought. */
export function toneOf(share: number): [number, number, number] {
  const end = share > 0 ? [0.663, 0.29, 0.09] : [0.114, 0.302, 0.561]
  const paper = [0.93, 0.9, 0.84]
  const by = Math.min(1, Math.abs(share)) ** 0.8
  return [0, 1, 2].map((at) => (paper[at] ?? 0) * (1 - by) + (end[at] ?? 0) * by) as [number, number, number]
}

/** The body seen from above at a slant, the far side first. */
export function stillOf(mesh: Mesh): { points: string; fill: string }[] {
  const slant = 0.42
  const seen = mesh.corners.map(([x = 0, y = 0, z = 0]) => ({
    x: 240 + x * 150,
    y: 235 + (z * Math.sin(slant) - y * Math.cos(slant)) * 150,
    near: z,
  }))
  return facesOf(mesh)
    .map((face) => ({ ...face, near: face.at.reduce((sum, one) => sum + (seen[one]?.near ?? 0), 0) }))
    .sort((a, b) => a.near - b.near)
    .map((face) => ({
      points: face.at.map((one) => `${seen[one]?.x.toFixed(1)},${seen[one]?.y.toFixed(1)}`).join(' '),
      fill: `rgb(${toneOf(face.share)
        .map((one) => Math.round(one * 255))
        .join(' ')} / ${face.near > 0 ? 0.8 : 1})`,
    }))
}
