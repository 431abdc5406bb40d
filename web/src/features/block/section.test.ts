import { describe, expect, it } from 'vitest'

import { sectionPicture } from './section'

const input = { protrusion: 90e-6, least: 50e-6, greatest: 125e-6, lip: 0, shim: 0, gap: 0 }

describe('section', () => {
  it('draws heights in their order, higher up the page', () => {
    const picture = sectionPicture(input)
    expect(picture.yOf(125e-6)).toBeLessThan(picture.yOf(90e-6))
    expect(picture.yOf(90e-6)).toBeLessThan(picture.yOf(50e-6))
    expect(picture.linerTop).toBeCloseTo(picture.yOf(90e-6), 9)
  })

  it('keeps one scale for all heights', () => {
    const picture = sectionPicture(input)
    const perMetre = (a: number, b: number) => (picture.yOf(a) - picture.yOf(b)) / (b - a)
    expect(perMetre(0, 50e-6)).toBeCloseTo(perMetre(50e-6, 125e-6), 3)
  })

  it('draws a sunk liner below the deck', () => {
    const picture = sectionPicture({ ...input, protrusion: -40e-6 })
    expect(picture.linerTop).toBeGreaterThan(picture.yOf(0))
  })

  it('lifts the flange by a shim and lets a worn ledge fall away', () => {
    expect(sectionPicture({ ...input, shim: 1e-4 }).flangeUnderside).toBeLessThan(
      sectionPicture(input).flangeUnderside,
    )
    expect(sectionPicture({ ...input, gap: 12e-6 }).ledge).toBeGreaterThan(sectionPicture(input).ledge)
  })
})
