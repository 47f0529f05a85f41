// One ask on the rope: pressed, built, a try seen, let go. Or one level tapped
// after the fact.
import { reactive } from 'vue'

export interface Draft {
  start?: number
  peak?: number
  first?: number
  seconds?: number
  toTry?: number
}

export function useHold(now: () => number) {
  const hold = reactive({
    on: false,
    level: 0,
    seconds: 0,
    /** The touch was taken away by the phone; the hold goes on. */
    interrupted: false,
    tryAt: undefined as number | undefined,
    draft: {} as Draft,
  })
  let started = 0
  let timer: ReturnType<typeof setInterval> | undefined

  const elapsed = () => Math.round((now() - started) / 100) / 10

  function press() {
    if (hold.on) {
      hold.interrupted = false
      return
    }
    started = now()
    Object.assign(hold, { on: true, level: 1, seconds: 0, interrupted: false, tryAt: undefined, draft: { start: 1, peak: 1 } })
    timer = setInterval(() => (hold.seconds = elapsed()), 100)
  }

  function build(level: number) {
    if (!hold.on || level === hold.level) return
    hold.level = level
    hold.draft.peak = Math.max(hold.draft.peak ?? 0, level)
  }

  /** The first try, inside a held ask. */
  function tried() {
    if (!hold.on || hold.tryAt !== undefined) return
    hold.tryAt = elapsed()
    hold.draft.toTry = hold.tryAt
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
    const draft = hold.draft
    Object.assign(hold, { level: 0, seconds: 0, tryAt: undefined, draft: {} })
    return draft
  }

  return { hold, press, build, tried, letGo, tap, take }
}
