// Where a line's points stand: sessions from left to right, and one height scale for
// all lines of the same measure.
import type { Schemas } from '../../api/types'

export type Line = Schemas['ProgressLine']

export const wide = 280
export const tall = 64
const edge = 6

/** The largest number of a measure among some lines; of levels always ten. */
export function top(lines: Line[], measure: string): number {
  if (measure === 'level') return 10
  const all = lines.filter((l) => l.measure === measure).flatMap((l) => l.trend.points.map((p) => p.y))
  return Math.max(...all, 1)
}

/** Across: by the session's number, of so many. */
export const across = (x: number, sessions: number) =>
  sessions <= 1 ? wide / 2 : edge + ((x - 1) / (sessions - 1)) * (wide - 2 * edge)

/** Up: by the number, of the measure's largest. */
export const up = (y: number, most: number) => tall - edge - (Math.min(y, most) / most) * (tall - 2 * edge)

/** The band around the line: the slopes that are as likely, through its middle. */
export function band(l: Line, sessions: number, most: number): string {
  const points = l.trend.points
  const [first, last] = [points[0], points.at(-1)]
  if (!first || !last || l.trend.word === 'too early to say') return ''
  const [a, b] = [across(first.x, sessions), across(last.x, sessions)]
  const middle = (l.trend.from + l.trend.to) / 2
  const half = (last.x - first.x) / 2
  const ends = [l.trend.low, l.trend.high].map((slope) =>
    l.measure === 'level'
      ? [middle - slope * half, middle + slope * half]
      : [middle * Math.exp(-slope * half), middle * Math.exp(slope * half)],
  )
  const at = (v: number | undefined) => up(Math.max(v ?? 0, 0), most)
  const left = ends.map((e) => at(e[0])).sort((p, q) => p - q)
  const right = ends.map((e) => at(e[1])).sort((p, q) => p - q)
  return `M${a} ${left[0]}L${b} ${right[0]}V${right[1]}L${a} ${left[1]}z`
}

/** A number as it stands at the end of a line. */
export const said = (l: Line, v: number) =>
  l.measure === 'level' ? String(Math.round(v)) : `${v >= 10 ? Math.round(v) : Math.round(v * 10) / 10} s`
