// Days as a diary shows them. Which day is proposed, and what clashes, the server says.
import { localDate } from '../words'

const day = (date: string) => new Date(`${date}T12:00:00Z`)

/** Days are counted from 1970. */
export const dayNumber = (date: string) => Date.parse(`${date}T00:00:00Z`) / 86_400_000

/** The date so many days on. */
export function later(date: string, days: number): string {
  const d = day(date)
  d.setUTCDate(d.getUTCDate() + days)
  return d.toISOString().slice(0, 10)
}

/** The Monday of a day's week. */
export const monday = (date: string) => later(date, -((day(date).getUTCDay() + 6) % 7))

const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' })
const month = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' })

export const weekdayOf = (date: string) => weekday.format(day(date))
export const dayOf = (date: string) => day(date).getUTCDate()

/** 23 to 29 November, or 30 November to 6 December. */
export function spanOf(from: string): string {
  const to = later(from, 6)
  const first = month.format(day(from))
  const last = month.format(day(to))
  return first === last ? `${dayOf(from)} to ${dayOf(to)} ${last}` : `${dayOf(from)} ${first} to ${dayOf(to)} ${last}`
}

/** This week, Next week, or how far away. */
export function weekName(from: string): string {
  const weeks = Math.round((day(from).getTime() - day(monday(localDate(Date.now()))).getTime()) / (7 * 24 * 3_600_000))
  if (weeks === 0) return 'This week'
  if (weeks === 1) return 'Next week'
  if (weeks === -1) return 'Last week'
  return weeks === 2 ? 'Week after' : `${Math.abs(weeks)} weeks ${weeks > 0 ? 'ahead' : 'back'}`
}

/** 1 h 43, or 52 min. */
export const driven = (minutes: number) =>
  minutes < 60 ? `${minutes}\u00a0min` : `${Math.floor(minutes / 60)}\u00a0h\u00a0${String(minutes % 60).padStart(2, '0')}`
