// Reps as beads: what the drawing needs of them.
import type { Schemas } from '../api/types'

export interface Bead {
  id: string
  answer: string
  level: number | null
  /** Number among the counted reps of its ask; 0: not counted. */
  n: number
  dip: boolean
  /** Not sent yet. */
  waiting: boolean
  says: string
}

type Told = Schemas['ArenaTold']

export const noted = (level: number | null | undefined) => level ?? null

export function beadOf(t: Told): Bead {
  const level = noted(t.peak)
  const says = [t.graded, level === null ? '' : `at ${level}`, t.counted ? '' : 'not counted'].filter(Boolean).join(' ')
  return { id: t.id, answer: t.graded, level, n: t.n, dip: t.dip, waiting: false, says }
}

export const askKey = (a: { step: string; variant?: string }) => `${a.step} ${a.variant ?? ''}`.trim()

export interface AskBeads {
  key: string
  name: string
  variant: string
  beads: Bead[]
}

/** The beads of a session by ask, in the order in which the asks were worked. */
export function byAsk(told: Told[]): AskBeads[] {
  const asks = new Map<string, AskBeads>()
  for (const t of told) {
    const key = askKey(t)
    const ask = asks.get(key) ?? { key, name: t.name, variant: t.variant ?? '', beads: [] }
    ask.beads.push(beadOf(t))
    asks.set(key, ask)
  }
  return [...asks.values()]
}
