import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

import { Refusal } from '@/api/ask'
import { mounted } from '@/testing/mounted'

import { isTyping, onPedal } from './typing'
import { type Form, useForm } from './useForm'

const refused = (field: string) =>
  new Refusal('invalid', 'Type a number.', [{ field, message: 'Type a number.' }])

describe('a form', () => {
  let form: Form
  let leave: () => void
  beforeEach(async () => {
    const page = await mounted(() => useForm('card.'))
    form = page.it
    leave = () => page.app.unmount()
  })
  afterEach(() => leave())

  it('is busy while it sends, and keeps why it was refused until it is sent again', async () => {
    let done: () => void = () => undefined
    const sending = form.send(() => new Promise<void>((go) => (done = go)))
    expect(form.busy.value).toBe(true)
    done()
    await sending
    expect(form.busy.value).toBe(false)
    await form.send(() => Promise.reject(refused('card.name')))
    expect(form.busy.value).toBe(false)
    expect(form.refusal.value?.message).toBe('Type a number.')
    await form.send(() => Promise.resolve())
    expect(form.refusal.value).toBeNull()
  })

  it('puts an offered text into the field it was asked at, and sends again', async () => {
    await form.send(() => Promise.reject(refused('card.bore')))
    const put = vi.fn()
    const again = vi.fn(() => Promise.resolve())
    await form.answer({ text: '4.5 inch', confirm: false } as never, put, again)
    expect(put).toHaveBeenCalledWith('card.bore', '4.5 inch')
    expect(again).toHaveBeenCalledWith(false)
  })

  it('leaves what was typed where it is taken as it is', async () => {
    await form.send(() => Promise.reject(refused('card.bore')))
    const put = vi.fn()
    const again = vi.fn(() => Promise.resolve())
    await form.answer({ text: '', confirm: true } as never, put, again)
    expect(put).not.toHaveBeenCalled()
    expect(again).toHaveBeenCalledWith(true)
  })
})

describe('keys and the pedal', () => {
  const stepped = vi.fn()
  let leave: () => void
  beforeEach(async () => {
    stepped.mockClear()
    document.body.innerHTML = `
      <button>Take</button>
      <input id="text" value="54"><input id="empty" value=""><input id="tick" type="checkbox">
      <textarea></textarea><div role="dialog"><button id="within">Close</button></div>`
    const page = await mounted(() => {
      onPedal(stepped)
    })
    leave = () => page.app.unmount()
  })
  afterEach(() => {
    leave()
    document.body.innerHTML = ''
  })
  const press = (where: string, key: string, more: KeyboardEventInit = {}) =>
    document
      .querySelector(where)
      ?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }))

  it.each([
    ['button', ' '],
    ['#empty', ' '],
    ['#text', 'PageDown'],
    ['#text', 'F8'],
    ['#tick', 'F8'],
  ])('counts at %s by %s', (where, key) => {
    press(where, key)
    expect(stepped).toHaveBeenCalledOnce()
  })

  it.each([
    ['#text', ' '],
    ['#tick', ' '],
    ['textarea', ' '],
    ['#within', 'F8'],
    ['button', 'Enter'],
  ])('leaves %s its %s', (where, key) => {
    press(where, key)
    expect(stepped).not.toHaveBeenCalled()
  })

  it('counts once however long it is held down, and never with Ctrl', () => {
    press('button', ' ', { repeat: true })
    press('button', 'F8', { ctrlKey: true })
    expect(stepped).not.toHaveBeenCalled()
  })

  it('shortcuts stay silent in fields and dialogs', () => {
    const typing: boolean[] = []
    const heard = (event: KeyboardEvent) => typing.push(isTyping(event))
    document.addEventListener('keydown', heard)
    for (const where of ['#text', 'textarea', '#within', 'button']) press(where, 'x')
    document.removeEventListener('keydown', heard)
    expect(typing).toEqual([true, true, true, false])
  })
})
