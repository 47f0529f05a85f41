// What today's and tomorrow's work needs, read while there is a signal: the run
// sheets, the outings, the horses that are worked, with plan, readiness and last
// sessions, and the catalogue. Done quietly, one after another.
import { ref } from 'vue'
import { ahead } from '../api/client'
import { localDate } from '../dates'

const again = 10 * 60_000
const most = 40
const day = 24 * 60 * 60_000

/** How many horses are kept on this device for the yard, and since when. */
export const broughtAlong = ref({ horses: 0, at: 0 })
let busy = false

export async function bringAlong(horses: { id: string; case: { id: string } }[]) {
  if (busy || Date.now() - broughtAlong.value.at < again) return
  busy = true
  try {
    await ahead.GET('/api/catalog')
    await ahead.GET('/api/methods')
    await ahead.GET('/api/trailers')
    for (const days of [0, 1]) await ahead.GET('/api/day', { params: { query: { on: localDate(Date.now() + days * day) } } })
    const walked = await ahead.GET('/api/outings')
    for (const h of walked.data ?? []) await ahead.GET('/api/horses/{id}/outings', { params: { path: { id: h.id } } })
    let n = 0
    for (const h of horses.slice(0, most)) {
      const horsePath = { params: { path: { id: h.id } } }
      const casePath = { params: { path: { id: h.case.id } } }
      const got = [
        await ahead.GET('/api/cases/{id}/session-start', casePath),
        await ahead.GET('/api/horses/{id}', horsePath),
        await ahead.GET('/api/horses/{id}/sessions', horsePath),
        await ahead.GET('/api/cases/{id}/plan', casePath),
      ]
      if (got.some((g) => !g.response.ok)) return
      n++
    }
    broughtAlong.value = { horses: n, at: Date.now() }
  } catch {
    // no signal: what was kept before stays
  } finally {
    busy = false
  }
}
