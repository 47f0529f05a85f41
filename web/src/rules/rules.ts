// The one way to the rules on this device. They run in a worker, answer in the
// order they are asked in, and know nothing but what they are told here.
import type { Schemas } from '../api/types'
import type { Asked } from './worker'

export type Brief = Schemas['ArenaBrief']
export type Picture = Schemas['ArenaPicture']
export type Verdict = Schemas['DeskVerdict']
export type Entry = Schemas['TrackEntry']

interface Questions {
  catalog: { asked: unknown; said: object }
  gate: {
    asked: {
      brief: Brief
      today: string
      readiness: Schemas['ArenaReadiness']
      lead: boolean
      words: Schemas['PhraseWords']
    }
    said: Verdict
  }
  open: {
    asked: {
      brief: Brief
      beginning: Schemas['ArenaBeginning']
      rules: Schemas['CatalogHouseRules']
      words: Schemas['PhraseWords']
      track: Entry[]
    }
    said: Picture
  }
  add: { asked: { entries: Entry[]; now: number }; said: { refused: Schemas['RefusedEntry'][]; told: Picture } }
  review: { asked: object; said: Schemas['ArenaReview'] & { beads: Schemas['ArenaTold'][] } }
  /** All asks that can be chosen: in the open session, or in one that a brief would begin. */
  asks: { asked: { brief?: Brief; words: Schemas['PhraseWords'] }; said: Schemas['DeskChosen'] }
  card: {
    asked: { key: string; words: Schemas['PhraseWords'] } & Schemas['CatalogTick']
    said: Schemas['CatalogNow']
  }
  /** An outing to be laid out. */
  road: { asked: Schemas['DeskLaying']; said: Schemas['DeskLaid'] }
  /** The open session's outing at a moment. */
  walk: { asked: { before: number; now: number }; said: Schemas['DeskWalked'] }
  /** Which gait the taps are. */
  footfall: {
    asked: { speed: number; landings: Schemas['GaitLanding'][]; words: Schemas['PhraseWords'] }
    said: Schemas['DeskTimed']
  }
  tell: { asked: { now: number }; said: Picture }
}

export class Rules {
  private readonly worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' })
  private readonly waits = new Map<number, { done: (said: unknown) => void; failed: (why: Error) => void }>()
  private n = 0
  private catalog = ''

  constructor() {
    this.worker.addEventListener('message', (e: MessageEvent<{ n: number; said: string }>) => {
      const wait = this.waits.get(e.data.n)
      this.waits.delete(e.data.n)
      const said = JSON.parse(e.data.said) as { error?: string }
      if (said.error === undefined) wait?.done(said)
      else wait?.failed(new Error(said.error))
    })
  }

  ask<N extends keyof Questions>(name: N, asked: Questions[N]['asked']): Promise<Questions[N]['said']> {
    return new Promise((done, failed) => {
      const n = ++this.n
      const start = performance.now()
      const said = (answer: unknown) => {
        performance.measure(`rules ${name}`, { start })
        done(answer as Questions[N]['said'])
      }
      this.waits.set(n, { done: said, failed })
      this.worker.postMessage({ n, name, asked: JSON.stringify(asked) } satisfies Asked)
    })
  }

  /** Makes sure that the rules have a version of the catalogue. */
  async read(version: string, fetched: () => Promise<unknown>) {
    if (this.catalog === version) return
    await this.ask('catalog', await fetched())
    this.catalog = version
  }
}

let rules: Rules | undefined

/** The rules, loaded when they are first asked for. */
export function theRules(): Rules {
  rules ??= new Rules()
  return rules
}
