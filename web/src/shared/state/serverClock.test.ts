import { mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type ComputedRef, defineComponent, h, type Ref, ref } from 'vue'

import { useServerClock } from './serverClock'

const SERVER = Date.parse('2026-11-29T10:00:00Z')

describe("the server's time between its answers", () => {
  let told: Ref<string | null>
  let clock: ComputedRef<number>
  let view: VueWrapper
  let asked = 0

  beforeEach(() => {
    vi.useFakeTimers({ now: Date.parse('2031-01-01T00:00:00Z') })
    asked = 0
    told = ref('2026-11-29T10:00:00Z')
    view = mount(
      defineComponent(() => {
        clock = useServerClock(told, () => asked++)
        return () => h('p')
      }),
    )
  })
  afterEach(() => {
    view.unmount()
    vi.useRealTimers()
  })

  it('runs on with the steady clock, whatever the watch of this machine says', () => {
    expect(clock.value).toBe(SERVER)
    vi.advanceTimersByTime(20_000)
    expect(Math.abs(clock.value - SERVER - 20_000)).toBeLessThanOrEqual(100)
    expect(asked).toBe(0)
  })

  it('counts what went by asleep, and asks', () => {
    vi.advanceTimersByTime(1_000)
    // Asleep the steady clock stands still, the watch does not.
    vi.setSystemTime(Date.now() + 60_000)
    vi.advanceTimersByTime(200)
    expect(asked).toBe(1)
    expect(Math.abs(clock.value - SERVER - 61_200)).toBeLessThanOrEqual(200)
    told.value = '2026-11-29T10:01:05Z'
    expect(clock.value).toBe(SERVER + 65_000)
    vi.advanceTimersByTime(2_000)
    expect(asked).toBe(1)
  })

  it('does not go back where somebody sets the watch back, and asks', () => {
    vi.advanceTimersByTime(5_000)
    vi.setSystemTime(Date.now() - 3_600_000)
    vi.advanceTimersByTime(200)
    expect(asked).toBe(1)
    expect(clock.value).toBeGreaterThanOrEqual(SERVER + 5_000)
  })

  it('asks when the page is seen again', () => {
    document.dispatchEvent(new Event('visibilitychange'))
    expect(asked).toBe(1)
  })
})
