// Where a note is answered.
import type { Schemas } from '../api/types'

interface Case {
  id: string
  case: { id: string }
  open_session?: string
}

export function answered(note: Schemas['AttentionNote'], of: Case): string {
  const places: Record<string, string> = {
    sessions: `/horses/${of.id}/sessions`,
    session: `/arena/${of.open_session ?? ''}`,
    assessment: `/horses/${of.id}/assessment`,
    plan: `/horses/${of.id}/plan`,
    homework: `/horses/${of.id}/plan?see=clearance`,
    incidents: `/horses/${of.id}?see=incidents`,
    ready: `/arena/ready/${of.case.id}`,
  }
  return places[note.to] ?? `/horses/${of.id}`
}
