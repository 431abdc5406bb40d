/** Reading back what was taken, for ears: a tone, or the browser's own speech. Nothing leaves the machine. */
import { useLocalStorage } from '@vueuse/core'

export type ReadBack = 'off' | 'tone' | 'speech' | 'aloud'
export const READ_BACKS: readonly ReadBack[] = ['off', 'tone', 'speech', 'aloud']
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
  return words
    .replaceAll('+', 'plus ')
    .replaceAll('−', 'minus ')
    .replaceAll('× 0.01 mm', 'hundredths')
    .replaceAll('µm', 'micrometres')
}

/** A voice of this machine: one that is lent by a service would send the words away. */
export function localVoice(voices: readonly SpeechSynthesisVoice[]): SpeechSynthesisVoice | null {
  const local = voices.filter((voice) => voice.localService)
  return local.find((voice) => voice.lang.startsWith('en')) ?? local[0] ?? null
}

function speak(words: string): void {
  if (!('speechSynthesis' in window)) return
  const voice = localVoice(window.speechSynthesis.getVoices())
  if (!voice) return
  const said = new SpeechSynthesisUtterance(spoken(words))
  said.voice = voice
  window.speechSynthesis.speak(said)
}

const isSpoken = () => readBack.value === 'speech' || readBack.value === 'aloud'

/** Whether this machine can say anything by itself. */
export const hasVoice = (): boolean =>
  'speechSynthesis' in window && localVoice(window.speechSynthesis.getVoices()) !== null

/** Words that were asked for by a key: read out whatever is chosen, where this machine has a voice. */
export function speakNow(words: string): void {
  if ('speechSynthesis' in window) window.speechSynthesis.cancel()
  speak(words)
}

export function tell(words: string, good: boolean): void {
  if (readBack.value === 'tone') tone(good ? GOOD_HZ : BAD_HZ)
  if (!isSpoken()) return
  if ('speechSynthesis' in window) window.speechSynthesis.cancel()
  speak(words)
}

/** What follows what was said, after it: only where everything is wanted aloud. */
export function sayAlso(words: string): void {
  if (readBack.value === 'aloud') speak(words)
}
