// What this device keeps for one user in one practice: entries on their way,
// settings, and copies of pages for when there is no signal. Nobody reads
// another's.
import Dexie, { type Table } from 'dexie'
import type { Schemas } from '../api/types'

export type Entry = Schemas['TrackEntry']
export type Mark = Schemas['AssessMark']
/** A session that was begun without a signal. */
export type Begun = Schemas['StartInputBody']

/** What something belongs to: a session by its id, a session that begins, by
 * its case, or an assessment of a horse. */
export type Topic = `session/${string}` | `start/${string}/${string}` | `assessment/${string}/${string}`
export type Sent<T extends Topic> = T extends `session/${string}` ? Entry : T extends `start/${string}` ? Begun : Mark

/** On its way, not taken by the server, or arrived and kept for reading. */
export const state = { waiting: 0, refused: 1, sent: 2 } as const

export interface Kept<T extends Topic = Topic> {
  id: string
  topic: T
  seq: number
  at: number
  state: number
  entry: Sent<T>
  refused?: string
}

interface Setting {
  key: string
  value: unknown
}

/** An answer of the server, as it was at a time. */
export interface Copy {
  path: string
  at: number
  body: string
}

/** Which device this is, and how far it has counted: what it sends is put in order
 * by these. They tell nothing of anybody. */
const staying = ['device', 'seq']

const first = Dexie.minKey
const last = Dexie.maxKey

/* A browser keeps the page before this one, to go back to. One that was left while
 * it opened its database would hold up every later page's for good. A page that is
 * spoken to is given up instead. */
const pages = new BroadcastChannel('ivorybridge pages')
pages.addEventListener('message', () => undefined)
pages.postMessage('another is open')

export class Shelf extends Dexie {
  entries!: Table<Kept, string>
  settings!: Table<Setting, string>
  copies!: Table<Copy, string>

  constructor(user: string, practice: string) {
    // A tap is on the disk before the screen answers.
    super(`ivorybridge-${practice}-${user}`, { chromeTransactionDurability: 'strict' })
    this.version(1).stores({ entries: 'id, [session+seq], seq', settings: 'key' })
    this.version(2)
      .stores({ entries: 'id, [topic+seq], seq', settings: 'key' })
      .upgrade((old) =>
        old
          .table<Kept & { session?: string }>('entries')
          .toCollection()
          .modify((kept) => {
            kept.topic = `session/${kept.session ?? ''}`
            delete kept.session
          }),
      )
    this.version(3)
      .stores({ entries: 'id, [topic+seq], [state+seq], seq', settings: 'key', copies: 'path, at' })
      .upgrade((old) =>
        old
          .table<Kept>('entries')
          .toCollection()
          .modify((kept) => {
            kept.state = kept.refused === undefined ? state.waiting : state.refused
            kept.at = (kept.entry as Entry).at
          }),
      )
  }

  /** The entries in a state, the oldest first. */
  in(s: number) {
    return this.entries.where('[state+seq]').between([s, first], [s, last])
  }

  /** The entries of a topic, the oldest first. */
  of(topic: Topic) {
    return this.entries.where('[topic+seq]').between([topic, first], [topic, last])
  }

  /** Takes away what was kept for its user to read, but for what the server does
   * not have yet: that stays until the same user signs in again. */
  async forget() {
    await this.transaction('rw', this.entries, this.settings, this.copies, async () => {
      await this.copies.clear()
      await this.settings.filter((s) => !staying.includes(s.key)).delete()
      await this.in(state.sent).delete()
    })
  }

  async setting<T>(key: string): Promise<T | undefined> {
    return (await this.settings.get(key))?.value as T | undefined
  }
}
