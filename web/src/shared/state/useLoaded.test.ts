import { describe, expect, it } from 'vitest'
import { createApp, h, nextTick, ref } from 'vue'

import { type Loaded, useLoaded } from './useLoaded'

/** A view of one hole, whose answers come when the test lets them. */
function view() {
  const hole = ref(1)
  const answers = new Map<number, ((plan: string) => void)[]>()
  let loaded: Loaded<string> | null = null
  const app = createApp({
    setup() {
      loaded = useLoaded(
        () =>
          new Promise<string>((resolve) => {
            answers.set(hole.value, [...(answers.get(hole.value) ?? []), resolve])
          }),
        hole,
      )
      return () => h('p')
    },
  })
  app.mount(document.createElement('div'))
  const answer = async (of: number, plan: string) => {
    answers.get(of)?.shift()?.(plan)
    await new Promise((resolve) => setTimeout(resolve))
  }
  return { hole, answer, loaded: loaded as unknown as Loaded<string>, app }
}

describe('what is loaded for one thing', () => {
  it('is never shown for another, however late it comes', async () => {
    const { hole, answer, loaded, app } = view()
    await answer(1, 'plan of 1')
    expect(loaded.data.value).toBe('plan of 1')
    hole.value = 2
    await nextTick()
    expect(loaded.data.value).toBeNull()
    hole.value = 1
    await nextTick()
    await answer(1, 'newer plan of 1')
    await answer(2, 'plan of 2')
    expect(loaded.data.value).toBe('newer plan of 1')
    app.unmount()
  })
})
