import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'

import type { Refusal } from '@/api/ask'
import { people } from '@/shared/state/people'
import { personId } from '@/shared/state/preferences'

import HoldReason from './HoldReason.vue'

const refusal = (code: string) =>
  ({
    code,
    message: 'Hold point. Look first.',
    problems: [],
    suggestions: [],
  }) as unknown as Refusal

describe('a hold point in the way', () => {
  beforeEach(() => {
    people.value = [{ person_id: 'ines', name: 'Ines' }]
    personId.value = 'ines'
  })

  it('is said with its reason to pass, under the name of who is at work', async () => {
    const view = mount(HoldReason, { props: { refusal: refusal('hold point'), modelValue: '' } })
    expect(view.text()).toContain('Look first.')
    const pass = view.find('button')
    expect(pass.text()).toContain('Pass it as Ines')
    expect(pass.attributes('disabled')).toBeDefined()
    await view.setProps({ modelValue: 'the ferry sails' })
    await pass.trigger('click')
    expect(view.emitted('pass')).toHaveLength(1)
  })

  it('is not there for any other refusal', () => {
    for (const code of ['wrong', 'asks', 'stale'])
      expect(mount(HoldReason, { props: { refusal: refusal(code), modelValue: '' } }).text()).toBe('')
    expect(mount(HoldReason, { props: { refusal: null, modelValue: '' } }).text()).toBe('')
  })
})
