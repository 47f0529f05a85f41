// One ask on the rope: pressed, built, tries seen, let go. Or one level tapped
// after the fact. The hold is kept by its instant, so that a phone that locks
// or a page that is lost takes nothing of it.
import { onUnmounted, reactive, watch } from 'vue'
import type { Schemas } from '../../api/types'

type Try = Schemas['TrackTry']

export interface Draft {
  start?: number
  peak?: number
  first?: number
  seconds?: number
  to_try?: number
  tries?: Try[]
}

interface KeptHold {
  started: number
  level: number
  tryAt?: number
  draft: Draft
}

export function useHold(key: string, now: () => number) {
  const hold = reactive({
    on: false,
    level: 0,
    seconds: 0,
    started: 0,
    /** The touch was taken away by the phone; the hold goes on. */
    interrupted: false,
    tryAt: undefined as number | undefined,
    draft: {} as Draft,
  })
  let timer: ReturnType<typeof setInterval> | undefined

  const elapsed = () => Math.round((now() - hold.started) / 100) / 10
  const run = () => (timer = setInterval(() => (hold.seconds = elapsed()), 100))

  const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as KeptHold | null
  if (kept) {
    Object.assign(hold, { ...kept, on: true, interrupted: true })
    run()
  }
  watch(
    () => [hold.on, hold.level, hold.tryAt, hold.draft.tries?.length],
    () => {
      const { started, level, tryAt, draft } = hold
      if (hold.on) localStorage.setItem(key, JSON.stringify({ started, level, tryAt, draft } satisfies KeptHold))
      else localStorage.removeItem(key)
    },
  )
  onUnmounted(() => clearInterval(timer))

  function press(level = 1) {
    if (hold.on) {
      hold.interrupted = false
      build(level)
      return
    }
    const started = now()
    Object.assign(hold, {
      on: true,
      level,
      seconds: 0,
      started,
      interrupted: false,
      tryAt: undefined,
      draft: { start: level, peak: level },
    })
    run()
  }

  function build(level: number) {
    if (!hold.on || level === hold.level) return
    hold.level = level
    hold.draft.peak = Math.max(hold.draft.peak ?? 0, level)
  }

  /** A try inside a held ask; each is a small release, the first is timed. */
  function tried() {
    if (!hold.on) return
    hold.draft.tries = [...(hold.draft.tries ?? []), { at: now() }]
    if (hold.tryAt !== undefined) return
    hold.tryAt = elapsed()
    hold.draft.to_try = hold.tryAt
    hold.draft.first = hold.level
  }

  function letGo() {
    if (!hold.on) return
    clearInterval(timer)
    hold.draft.seconds = elapsed()
    Object.assign(hold, { on: false, interrupted: false, seconds: hold.draft.seconds, level: hold.draft.peak ?? 0 })
  }

  /** A level said afterwards, without holding. */
  function tap(level: number) {
    if (hold.on) build(Math.max(level, 1))
    else Object.assign(hold, { level, seconds: 0, tryAt: undefined, draft: { peak: level } })
  }

  /** What was held, as the answer is tapped; lets go if it is still held. */
  function take(): Draft {
    letGo()
    const draft = { ...hold.draft }
    Object.assign(hold, { level: 0, seconds: 0, tryAt: undefined, draft: {} })
    return draft
  }

  return { hold, press, build, tried, letGo, tap, take }
}
