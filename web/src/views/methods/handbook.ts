// The catalogue, read once for the pages that show it.
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'

export type Handbook = Schemas['Handbook']
export type Ladder = Schemas['CatalogLadder']
export type Step = Schemas['CatalogStep']
export type Own = Schemas['OwnLadder']

export const useHandbook = () => useLoad(() => told(api.GET('/api/methods')))

/** A ladder as a bridge nobody has set foot on. */
export function bridgeOf(ladder: Ladder, piers: Schemas['Pier'][]): Schemas['ProgressBridge'] {
  const plank = (step: string, name: string) => ({
    step,
    name,
    state: 'untried' as const,
    says: { key: '', text: 'untried' },
    parts: [{ state: 'untried' as const }],
  })
  return {
    ladder: ladder.key,
    name: ladder.name,
    planks: ladder.steps.map((s) => plank(s.key, s.name)),
    piers: piers.map((p) => plank(p.step, p.name)),
    steps: ladder.steps.length,
    sources: [],
    progress: 0,
    blocked: 0,
    met: 0,
  }
}

const folded = (s: string) => s.toLowerCase()

/** Whether a step speaks of what is looked for. */
export function speaksOf(step: Step, words: string): boolean {
  const text = folded([step.key, step.name, step.ask, step.release, step.watch, step.plain, ...(step.kit ?? [])].join(' '))
  return folded(words)
    .split(/\s+/)
    .every((w) => text.includes(w))
}
