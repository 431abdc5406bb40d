import { flushPromises, mount } from '@vue/test-utils'
import { expect, it, vi } from 'vitest'

import type { CleanUpView, HoleOnLadder } from '@/api/generated'

import DecideForm from './DecideForm.vue'
import type { CleanUpNow } from './useCleanUp'

/** A form whose decision stays on its way until `arrive` is called. */
function decideForm() {
  let arrive: () => void = () => undefined
  const decide = vi.fn(() => new Promise<void>((resolve) => (arrive = resolve)))
  const hole = { hole: 3, rungs: [], best: null } as unknown as HoleOnLadder
  const form = mount(DecideForm, {
    props: {
      now: { decide } as unknown as CleanUpNow,
      view: { steps: [], profiles: [], holes: [hole] } as unknown as CleanUpView,
      hole,
      option: null,
      jobId: 'a-job',
    },
  })
  const label = form.findAll('label').find((one) => one.text() === 'Because')
  const because = form.get<HTMLInputElement>(`#${label?.attributes('for') ?? ''}`)
  return { form, because, decide, arrive: () => arrive() }
}

it('closes after a decision, with its words gone', async () => {
  const { form, because, decide, arrive } = decideForm()
  await because.setValue('pistons are on the shelf')
  await form.trigger('submit')
  expect(decide).toHaveBeenCalledTimes(1)
  arrive()
  await flushPromises()
  expect(form.emitted('done')).toHaveLength(1)
  expect(because.element.value).toBe('')
})

it('stays open with what was typed while the decision was on its way', async () => {
  const { form, because, arrive } = decideForm()
  await because.setValue('pistons are on the shelf')
  await form.trigger('submit')
  await because.setValue('agreed by telephone')
  arrive()
  await flushPromises()
  expect(form.emitted('done')).toBeUndefined()
  expect(because.element.value).toBe('agreed by telephone')
  expect(form.get('button[type=submit]').attributes('disabled')).toBeUndefined()
})
