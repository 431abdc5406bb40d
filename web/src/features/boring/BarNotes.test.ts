import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'

import type { BoringView } from '@/api/generated'
import { Refusal } from '@/api/ask'
import { settled } from '@/testing/server'

import BarNotes from './BarNotes.vue'
import type { BoringNow } from './useBoring'

const note = {
  job: 'Winding Engine Tamsin',
  hole: 1,
  of: 'set-up',
  words: 'bar borne at both ends',
  said_at: '2026-11-20T08:00:00Z',
  said_by: 'Tobiah',
}
const open = (zero_due: string, looked = vi.fn().mockResolvedValue(undefined)) => {
  const view = { zero_due, material: 'grey iron', notes: [note] } as unknown as BoringView
  const now = { zeroLooked: looked } as unknown as BoringNow
  return { page: mount(BarNotes, { props: { now, view } }), looked }
}

describe('before a programme of passes', () => {
  it('asks for a look at probe and zero, and takes it by a button', async () => {
    const { page, looked } = open('the bar was set anew since')
    expect(page.find('[aria-label="Before the next pass"]').text()).toContain('the bar was set anew since')
    await page.find('button').trigger('click')
    expect(looked).toHaveBeenCalledOnce()
  })

  it('says why it was not taken', async () => {
    const { page } = open(
      'nobody looked',
      vi.fn().mockRejectedValue(new Refusal('stale', 'Say first who works.')),
    )
    await page.find('button').trigger('click')
    await settled()
    expect(page.text()).toContain('Say first who works.')
  })

  it('asks for nothing once somebody looked, and keeps what was said of such iron before', () => {
    const { page } = open('')
    expect(page.find('button').exists()).toBe(false)
    expect(page.text()).toContain('On grey iron before')
    expect(page.text()).toContain('bar borne at both ends')
    expect(page.text()).toContain('Winding Engine Tamsin hole 1')
  })
})
