import { readFileSync } from 'node:fs'

import { describe, expect, it } from 'vitest'

// WCAG 2.2, success criterion 1.4.3: 4.5 to 1 for text; relative luminance as defined there.
const LEAST_CONTRAST = 4.5
const style = readFileSync('src/style.css', 'utf-8')

function colours(block: string): Map<string, string> {
  return new Map(
    [...block.matchAll(/--color-([\w-]+): (#[0-9a-f]{6})/g)].map((m) => [m[1] ?? '', m[2] ?? '']),
  )
}

function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => {
    const share = parseInt(hex.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

function contrast(first: string, second: string): number {
  const [light = 0, dark = 0] = [luminance(first), luminance(second)].sort((a, b) => b - a)
  return (light + 0.05) / (dark + 0.05)
}

const day = colours(style.split("[data-ground='dark']")[0] ?? '')
const night = new Map([...day, ...colours(style.split("[data-ground='dark']")[1] ?? '')])
const pairs = [
  ...['ink', 'ink-soft', 'part', 'act', 'in', 'unsure', 'out'].flatMap((text) =>
    ['paper', 'sheet', 'act-wash'].map((ground) => [text, ground] as const),
  ),
  ['ink', 'iron'],
  ['ink', 'track'],
  ['ink-soft', 'iron'],
  ['act-text', 'act'],
  ['plate-text', 'plate'],
  ['plate-soft', 'plate'],
  ['plate-act', 'plate'],
] as const

describe.each([
  ['day', day],
  ['after dark', night],
])('text colours by %s', (_, roles) => {
  it.each(pairs)('%s is legible on %s', (text, ground) => {
    expect(contrast(roles.get(text) ?? '', roles.get(ground) ?? '')).toBeGreaterThanOrEqual(LEAST_CONTRAST)
  })
})
