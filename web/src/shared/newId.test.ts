import { expect, test } from 'vitest'

import { newId } from './newId'

// RFC 9562, section 5.4: version 4 in the seventh byte, variant 10 in the ninth.
test('an id is a random UUID of version 4', () => {
  const made = Array.from({ length: 200 }, newId)
  for (const id of made)
    expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
  expect(new Set(made).size).toBe(200)
})
