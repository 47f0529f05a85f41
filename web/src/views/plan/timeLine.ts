// Days as places along a line, for what shares one: boards, ropes and the date.
import { dayNumber as day } from '../../parts/days'

/** Where a day stands between two others, in so many pixels, a little in from
 * both ends. */
export function along(from: string, to: string, width: number) {
  const edge = 9
  const span = Math.max(day(to) - day(from), 1)
  return (date: string) => edge + (Math.min(Math.max(day(date) - day(from), 0), span) / span) * (width - 2 * edge)
}

/** The days that are written under a line: so many, evenly. */
export function ticks(from: string, to: string, count: number): string[] {
  const span = day(to) - day(from)
  return Array.from({ length: count }, (_, i) =>
    new Date((day(from) + Math.round((span * (i + 1)) / (count + 1))) * 86_400_000).toISOString().slice(0, 10),
  )
}
