// What a phone in a pocket or on a fence post is asked for: to stay awake, to
// answer a tap by a short buzz or a quiet tick. Each can be off, and is where
// the browser has it not.
import { useEventListener, useLocalStorage, useWakeLock } from '@vueuse/core'
import { onUnmounted, watch } from 'vue'

export const buzzes = useLocalStorage('arena-buzz', true)
export const sounds = useLocalStorage('arena-sound', false)
export const staysAwake = useLocalStorage('arena-awake', true)

let audio: AudioContext | undefined

function tick(pitch: number) {
  audio ??= new AudioContext()
  const at = audio.currentTime
  const tone = audio.createOscillator()
  const quiet = audio.createGain()
  tone.frequency.value = pitch
  quiet.gain.setValueAtTime(0.06, at)
  quiet.gain.exponentialRampToValueAtTime(0.001, at + 0.09)
  tone.connect(quiet).connect(audio.destination)
  tone.start(at)
  tone.stop(at + 0.1)
}

/** Says that a tap is kept. */
export function felt() {
  if (buzzes.value) navigator.vibrate?.(25)
  if (sounds.value) tick(520)
}

/** Says that the advice wants the eyes: stop, wait, make safe. */
export function mind() {
  if (buzzes.value) navigator.vibrate?.([120, 80, 120])
  if (sounds.value) tick(260)
}

export function useAwake() {
  const lock = useWakeLock()
  const want = () => {
    if (lock.isSupported.value && staysAwake.value) void lock.request('screen').catch(() => undefined)
  }
  want()
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'visible' && want())
  watch(staysAwake, (on) => (on ? want() : void lock.release()))
  onUnmounted(() => void lock.release())
}
