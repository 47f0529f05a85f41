// Which frame of a clip is shown, and the way to another. Right for films with a table of
// their frames; where there is none, frames are counted by the usual step.
import { computed, ref, watch, type Ref } from 'vue'

const guess = 1 / 30
/** So much before its moment a frame counts as shown, s. */
const early = 0.0005

/** The last frame that is shown by a moment. */
export function frameAt(frames: readonly number[], at: number): number {
  let low = 0
  let high = frames.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if ((frames[middle] ?? 0) <= at + early) low = middle
    else high = middle - 1
  }
  return low
}

/** A moment well inside a frame, so that no rounding shows its neighbour. */
export function within(frames: readonly number[], frame: number): number {
  const from = frames[frame] ?? 0
  const to = frames[frame + 1] ?? from + (from - (frames[frame - 1] ?? from - guess))
  return (from + to) / 2
}

export function useFrames(video: Ref<HTMLVideoElement | null>, table: () => readonly number[]) {
  const now = ref(0)
  const length = ref(0)
  const playing = ref(false)
  const rate = ref(1)
  const exact = computed(() => table().length > 1)
  const step = ref(guess)
  const frames = computed(() => {
    if (exact.value) return table()
    return Array.from({ length: Math.max(1, Math.round(length.value / step.value)) }, (_, i) => i * step.value)
  })
  const frame = computed(() => frameAt(frames.value, now.value))

  /** Follows the pictures as they are shown; where the browser tells of each, to the frame. */
  function follow(v: HTMLVideoElement) {
    let shown = -1
    const told = (_: number, of: VideoFrameCallbackMetadata) => {
      if (!exact.value && shown >= 0 && of.mediaTime > shown) step.value = Math.min(step.value, of.mediaTime - shown)
      shown = of.mediaTime
      if (!v.paused) now.value = of.mediaTime
      v.requestVideoFrameCallback(told)
    }
    if ('requestVideoFrameCallback' in v) v.requestVideoFrameCallback(told)
    v.addEventListener('timeupdate', () => (now.value = v.currentTime))
    v.addEventListener('seeked', () => (now.value = v.currentTime))
    v.addEventListener('durationchange', () => (length.value = Number.isFinite(v.duration) ? v.duration : 0))
    v.addEventListener('play', () => (playing.value = true))
    v.addEventListener('pause', () => (playing.value = false))
  }
  watch(video, (v) => v && follow(v), { immediate: true })

  function to(at: number) {
    const v = video.value
    if (!v) return
    v.currentTime = now.value = Math.min(Math.max(0, at), length.value || at)
  }
  function go(by: number) {
    video.value?.pause()
    to(within(frames.value, Math.min(Math.max(0, frame.value + by), frames.value.length - 1)))
  }
  function play() {
    const v = video.value
    if (!v) return
    v.playbackRate = rate.value
    if (v.paused) void v.play()
    else v.pause()
  }
  function slow() {
    rate.value = rate.value === 1 ? 0.5 : rate.value === 0.5 ? 0.25 : 1
    if (video.value) video.value.playbackRate = rate.value
  }
  /** The moment of what is seen now: of the frame, where it stands still. */
  const moment = () =>
    playing.value || !exact.value ? (video.value?.currentTime ?? now.value) : (frames.value[frame.value] ?? now.value)

  return { now, length, playing, rate, frame, frames, exact, to, go, play, slow, moment }
}
