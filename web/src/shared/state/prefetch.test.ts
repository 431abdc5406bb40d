import { describe, expect, it, vi } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'

import { prefetch, startPrefetch } from './prefetch'

const view = { template: '<p></p>', render: () => null }
const routerTo = (load: () => Promise<unknown>) =>
  createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/', component: view },
      { path: '/far', component: load as () => Promise<typeof view> },
    ],
  })

describe('what a link leads to', () => {
  it('is fetched once, and again where it did not come', async () => {
    const load = vi.fn().mockRejectedValueOnce(new Error('link down')).mockResolvedValue(view)
    const router = routerTo(load)
    await prefetch(router, '/far')
    await prefetch(router, '/far')
    await prefetch(router, '/far')
    expect(load).toHaveBeenCalledTimes(2)
  })

  it('is fetched when the link gets the focus or is pointed at, a file is not', () => {
    const load = vi.fn().mockResolvedValue(view)
    const router = routerTo(load)
    startPrefetch(router)
    document.body.innerHTML = '<a href="/far"><b>far</b></a><a id="file" href="/api/far">file</a>'
    document.querySelector('#file')?.dispatchEvent(new Event('pointerover', { bubbles: true }))
    expect(load).not.toHaveBeenCalled()
    document.querySelector('b')?.dispatchEvent(new Event('pointerover', { bubbles: true }))
    expect(load).toHaveBeenCalledTimes(1)
    document.body.innerHTML = ''
  })
})
