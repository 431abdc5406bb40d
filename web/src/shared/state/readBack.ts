/** Reading back what was taken, for ears: a tone, or the browser's own speech. Nothing leaves the machine. */
import { useLocalStorage } from '@vueuse/core'

export type ReadBack = 'off' | 'tone' | 'speech'
export const READ_BACKS: readonly ReadBack[] = ['off', 'tone', 'speech']
export const readBack = useLocalStorage<ReadBack>('vallo-read-back', 'tone')

const GOOD_HZ = 880
const BAD_HZ = 220
const TONE_S = 0.12

let sound: AudioContext | null = null

function tone(hertz: number): void {
  sound ??= new AudioContext()
  const oscillator = sound.createOscillator()
  oscillator.frequency.value = hertz
  oscillator.connect(sound.destination)
  oscillator.start()
  oscillator.stop(sound.currentTime + TONE_S)
}

/** Words to be heard: signs and units spoken out. */
export function spoken(words: string): string {
  return words.replaceAll('+', 'plus ').replaceAll('−', 'minus ').replaceAll('µm', 'micrometres')
}

export function tell(words: string, good: boolean): void {
  if (readBack.value === 'tone') tone(good ? GOOD_HZ : BAD_HZ)
  if (readBack.value === 'speech' && 'speechSynthesis' in window) {
    window.speechSynthesis.cancel()
    window.speechSynthesis.speak(new SpeechSynthesisUtterance(spoken(words)))
  }
}
