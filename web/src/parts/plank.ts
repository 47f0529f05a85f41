// The drawing of a plank by its state: fill and form, so that it reads in grey.
// A fill rises from below; halves stand near left and off right, with a gap.
export interface Piece {
  /** Left edge and width within the plank, 0 to 1. */
  x: number
  width: number
  state: string
}

interface Part {
  state: string
}

/** One piece when all parts are alike, else one for each, with gaps. */
export function pieces(parts: Part[], blocked: boolean): Piece[] {
  const first = parts[0]
  if (!first || blocked || parts.every((p) => p.state === first.state)) {
    return [{ x: 0, width: 1, state: blocked ? 'blocked' : (first?.state ?? 'untried') }]
  }
  const gap = 0.06
  const width = (1 - gap * (parts.length - 1)) / parts.length
  return parts.map((p, i) => ({ x: i * (width + gap), width, state: p.state }))
}

export const states = ['untried', 'tried', 'tolerated', 'met', 'kept', 'slipped', 'blocked'] as const
