// How dates and counts are written.
const long = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' })
const short = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })
const brief = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' })
const hour = new Intl.DateTimeFormat('en-GB', { weekday: 'long', hour: '2-digit', minute: '2-digit' })

const dated = (format: Intl.DateTimeFormat, date: string) => (date ? format.format(new Date(`${date}T12:00:00Z`)) : '')

/** Thursday 26 November */
export const longDate = (date: string) => dated(long, date)

/** 26 Nov 2026 */
export const shortDate = (date: string) => dated(short, date)

/** 26 Nov */
export const dayMonth = (date: string) => dated(brief, date)

/** Thursday 17:05, by the device's clock */
export const clock = (at: number) => hour.format(new Date(at))

const numbers = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten']

/** A count in words up to ten. */
export function inWords(n: number, raised = false): string {
  const said = numbers[n] ?? String(n)
  return raised ? said.charAt(0).toUpperCase() + said.slice(1) : said
}

/** The day on this device, YYYY-MM-DD. */
export function localDate(ms: number): string {
  const d = new Date(ms)
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`
}
