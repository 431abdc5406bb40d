/** What a browser has and the test environment has not: sound, which nobody hears here. */
const silent = {
  connect: () => silent,
  start: () => undefined,
  stop: () => undefined,
  frequency: { value: 0 },
}

class SilentSound {
  currentTime = 0
  destination = silent
  createOscillator = () => silent
  createGain = () => ({ ...silent, gain: { value: 0 } })
}

Object.assign(globalThis, { AudioContext: SilentSound })

import { config } from '@vue/test-utils'

import { legible } from '@/shared/charts/legible'

config.global.directives = { ...config.global.directives, legible }
