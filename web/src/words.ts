// The words of the practice, and how dates and lengths are written. The rules'
// own sentences come from the server.
import { me } from './api/me'
import { distance } from './lengths'

export { dayMonth, inWords, localDate, longDate, shortDate } from './dates'

/** near and off, or left and right, as the practice says. */
export function sideWord(side: string): string {
  if (me.value?.words.sides !== 'left and right') return side
  return side === 'near' ? 'left' : side === 'off' ? 'right' : side
}

/** When it was last worked. */
export function lastWorked(days: number): string {
  if (days < 0) return 'not yet'
  if (days === 0) return 'today'
  return days === 1 ? 'yesterday' : `${days} days ago`
}

/** The same, as a sentence has it. */
export const daysAgo = (days: number) => (days < 0 ? 'not worked yet' : `worked ${lastWorked(days)}`)

export const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`

/** The answers of a session in one line. */
export const answered = (r: { n: number; good: number; noted: boolean; highest: number }) =>
  r.n === 0
    ? 'No answer counted.'
    : `${r.good} of ${r.n} answers good${r.noted && r.highest > 0 ? `, highest level ${r.highest}` : ''}.`

/** How much of a bridge stands. */
export const secure = (b: { met: number; steps: number }) =>
  b.met === 0 ? 'no step secure yet' : `${b.met} of ${b.steps} steps secure`

/** 6:40 */
export function clock(seconds: number): string {
  const s = Math.max(0, Math.floor(seconds))
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
}

/** A hold, count or distance in the step's unit. */
export function measured(value: number, unit: string): string {
  switch (unit) {
    case 'mm':
      return distance(value / 1000)
    case 's':
      return `${value} s`
    case 'steps':
      return count(value, 'step', 'steps')
    case 'feet':
      return count(value, 'foot', 'feet')
    case 'holes':
      return count(value, 'hole', 'holes')
  }
  return count(value, 'time', 'times')
}

/** 26 Nov, 14:05 */
export const instant = (ms: number) =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }).format(ms)

/** 10:32, as the device's clock has it. */
export const clockTime = (ms: number) => new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' }).format(ms)

/** How large a file is. */
export const size = (bytes: number) =>
  bytes < 1 << 20 ? `${Math.ceil(bytes / 1024)} kB` : `${Math.round(bytes / 1024 / 1024)} MB`
