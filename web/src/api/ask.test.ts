import { describe, expect, it } from 'vitest'

import { ask, Refusal } from './ask'

const refused = (body: object) => ask(Promise.resolve({ error: body }))

describe('ask', () => {
  it('hands over the answer', async () => {
    await expect(ask(Promise.resolve({ data: 5 }))).resolves.toBe(5)
  })

  it('turns an error body into a refusal with its fields', async () => {
    const body = {
      code: 'wrong',
      message: 'There is no hole 9.',
      problems: [{ field: 'hole', message: 'There is no hole 9.' }],
      suggestions: [],
    }
    const refusal = await refused(body).catch((error: unknown) => error as Refusal)
    expect(refusal).toBeInstanceOf(Refusal)
    expect((refusal as Refusal).at('hole')).toBe('There is no hole 9.')
    expect((refusal as Refusal).at('hour')).toBe('')
  })

  it.each([[{ error: '<html>' }], [{ error: undefined }]])(
    'calls anything else unreachable: %o',
    async (answer) => {
      await expect(ask(Promise.resolve(answer))).rejects.toMatchObject({ code: 'unavailable' })
    },
  )

  it('calls a lost network unreachable and promises that nothing is lost', async () => {
    await expect(ask(Promise.reject(new TypeError('fetch')))).rejects.toThrow('What you typed is kept')
  })

  it('asks who it is where no form does', async () => {
    const body = {
      code: 'wrong',
      message: 'x',
      problems: [{ field: 'person_id', message: 'x' }],
      suggestions: [],
    }
    await expect(refused(body)).rejects.toThrow('Say who you are first')
  })
})
