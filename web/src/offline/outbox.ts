// The outbox: what is tapped is kept on this device first, in order, and sent
// in the background. Nothing leaves it before the server has it for good.
import { reactive } from 'vue'
import { v7 } from 'uuid'
import { background, noServer } from '../api/client'
import type { Schemas } from '../api/types'
import { Shelf, state as is, type Begun, type Entry, type Kept, type Mark, type Sent, type Topic } from '../device/shelf'

export type { Kept, Topic } from '../device/shelf'

type Answer<T extends Topic> = T extends `session/${string}`
  ? Schemas['Logged']
  : T extends `start/${string}`
    ? Schemas['Arena']
    : Schemas['Marked']

/** An entry before the outbox has given it its id, time and place. */
export type Said<T extends Topic> = Omit<Sent<T>, 'id' | 'at' | 'seq' | 'device'>

/** Hears what the server says, and which entries have arrived there. */
export type Hear<T extends Topic> = (answer: Answer<T>, arrived: Set<string>) => void

/** A copy that the device's database can take: without the page's proxies. */
const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

export type Signal = 'ok' | 'none' | 'signed out' | 'trouble'

const retryAfter = [1000, 2000, 4000, 8000, 15000, 20000]
const batch = 50
const patience = 15_000
/** Answers that say that it is what was sent. */
const faulty = new Set([400, 404, 409, 413, 415, 422])
/** Answers that say that the server can't now, whatever is sent. */
const later = new Set([408, 425, 429, 502, 503, 504, 507])
const brokeOff = 'The server broke off over this. It stays on this device; save it to a file, or log it again.'
const oldAfter = 24 * 3600_000

/** Sends some of a topic to where it belongs. */
async function post(topic: Topic, some: Kept[]) {
  const sent_at = Date.now()
  const signal = AbortSignal.timeout(patience)
  const [kind, id = '', of = ''] = topic.split('/')
  switch (kind) {
    case 'session': {
      const entries = some.map((k) => k.entry as Entry)
      return background.POST('/api/sessions/{id}/entries', {
        params: { path: { id } },
        body: { sent_at, entries, quiet: true },
        signal,
      })
    }
    case 'start': {
      const body = { ...(some[0]?.entry as Begun), sent_at }
      return background.POST('/api/cases/{id}/sessions', { params: { path: { id } }, body, signal })
    }
  }
  const marks = some.map((k) => k.entry as Mark)
  return background.POST('/api/horses/{id}/assessments/{of}/marks', {
    params: { path: { id, of } },
    body: { sent_at, marks },
    signal,
  })
}

export class Outbox {
  /** Nothing is said of it before it is counted. */
  readonly state = reactive({ counted: false, waiting: 0, refused: 0, signal: 'ok' as Signal, oldest: 0, full: false, said: '' })
  readonly shelf: Shelf
  private readonly listeners = new Map<Topic, Set<Hear<Topic>>>()
  private sending = false
  private again = false
  private failures = 0
  private timer: ReturnType<typeof setTimeout> | undefined
  private closed = false
  private size = batch
  /** Those that the server broke off over in this round, and whether it took any. */
  private readonly passedOver = new Set<string>()
  private tookAny = false

  constructor(user: string, practice: string) {
    this.shelf = new Shelf(user, practice)
    void this.wakes()
    window.addEventListener('online', this.hopes)
    void navigator.storage?.persist?.() // asked for; a browser may still say no
  }

  /** Counts what an earlier page left, and sends it. */
  private async wakes() {
    await this.whileOpen(() => this.count())
    await this.send()
  }

  /** The device believes in a signal: worth a try, no more. */
  private readonly hopes = () => void this.send()

  /** Keeps an entry on this device; done once it is on its disk. What can't be
   * kept is said, and thrown. It is of now, unless it is remembered. */
  add<T extends Topic>(topic: T, entry: Said<T>, remembered?: number): Promise<Kept<T>> {
    return this.keeping(
      topic,
      (id, now, seq, device) => ({ ...plain(entry), id, at: remembered ?? now, seq, device }) as unknown as Sent<T>,
    )
  }

  /** Keeps a session that was begun without a signal. */
  begin(topic: `start/${string}/${string}`, begun: Begun) {
    return this.keeping(topic, () => plain(begun))
  }

  private async keeping<T extends Topic>(
    topic: T,
    make: (id: string, at: number, seq: number, device: string) => Sent<T>,
  ): Promise<Kept<T>> {
    try {
      const { entries, settings } = this.shelf
      const kept = await this.shelf.transaction('rw', entries, settings, async () => {
        const device = (await this.shelf.setting<string>('device')) ?? v7()
        const seq = ((await this.shelf.setting<number>('seq')) ?? 0) + 1
        await settings.bulkPut([
          { key: 'device', value: device },
          { key: 'seq', value: seq },
        ])
        const id = v7()
        const at = Date.now()
        const kept: Kept<T> = { id, topic, seq, at, state: is.waiting, entry: make(id, at, seq, device) }
        await entries.add(kept as Kept)
        return kept
      })
      this.state.full = false
      this.state.waiting++
      this.state.oldest ||= kept.at
      void this.send()
      return kept
    } catch (error) {
      this.state.full = true
      throw error
    }
  }

  /** What is kept of a topic, in order, also what has arrived. */
  async of<T extends Topic>(topic: T): Promise<Kept<T>[]> {
    return (await this.shelf.of(topic).toArray()) as unknown as Promise<Kept<T>[]>
  }

  /** What is kept of a topic and not sent yet, in order. */
  async waiting<T extends Topic>(topic: T): Promise<Kept<T>[]> {
    return (await this.of(topic)).filter((k) => k.state === is.waiting)
  }

  /** What the server could not take of a topic. */
  async refusedOf<T extends Topic>(topic: T): Promise<Kept<T>[]> {
    return (await this.of(topic)).filter((k) => k.state === is.refused)
  }

  /** All that the server could not take. */
  setAside(): Promise<Kept[]> {
    return this.shelf.in(is.refused).toArray()
  }

  /** Lets go of what was refused, once something better stands in its place,
   * and of what has arrived, once the server has told it back. */
  async forgive(ids: string[]) {
    await this.whileOpen(async () => {
      await this.shelf.entries.bulkDelete(ids)
      await this.count()
    })
  }

  /** What is done beside the way: closed meanwhile, it is done the next time. */
  private async whileOpen(work: () => Promise<void>) {
    try {
      if (!this.closed) await work()
    } catch (error) {
      if (!this.closed) throw error
    }
  }

  /** All that the server does not have, in order. */
  async all(): Promise<Kept[]> {
    return [...(await this.shelf.in(is.refused).toArray()), ...(await this.shelf.in(is.waiting).toArray())]
  }

  /** Keeps something small for when there is no signal. */
  async keep(key: string, value: unknown) {
    await this.shelf.settings.put({ key, value: plain(value) })
  }

  setting<T>(key: string): Promise<T | undefined> {
    return this.shelf.setting<T>(key)
  }

  /** Calls back with what the server says each time entries of a topic arrived. */
  onTold<T extends Topic>(topic: T, hear: Hear<T>): () => void {
    const set = this.listeners.get(topic) ?? new Set()
    this.listeners.set(topic, set.add(hear as Hear<Topic>))
    return () => set.delete(hear as Hear<Topic>)
  }

  close() {
    this.closed = true
    window.removeEventListener('online', this.hopes)
    clearTimeout(this.timer)
    this.shelf.close()
  }

  private async count() {
    const waiting = this.shelf.in(is.waiting)
    this.state.waiting = await waiting.count()
    this.state.refused = await this.shelf.in(is.refused).count()
    this.state.oldest = (await waiting.first())?.at ?? 0
    this.state.counted = true
  }

  get old(): boolean {
    return this.state.oldest > 0 && Date.now() - this.state.oldest > oldAfter
  }

  /** Sends what waits, the oldest first, until all is sent or a send fails. Only
   * tries by the clock lengthen the wait for the next one: a tap tries at once. */
  async send(byTheClock = false) {
    if (this.closed) return
    if (this.sending) {
      this.again = true
      return
    }
    this.sending = true
    clearTimeout(this.timer)
    try {
      do {
        this.again = false
        while (!this.closed && (await this.sendNext())) this.failures = 0
      } while (this.again && !this.closed)
    } catch (error) {
      if (!this.closed) throw error // closed while it was sending: what waits goes the next time
    } finally {
      this.sending = false
    }
    if (this.state.waiting > 0 && !this.closed) {
      if (byTheClock) this.failures++
      const wait = retryAfter[Math.min(this.failures, retryAfter.length - 1)]
      this.timer = setTimeout(() => void this.send(true), wait)
    }
  }

  /** Sends one batch of one topic; false when there is none or it failed. */
  private async sendNext(): Promise<boolean> {
    const most = this.passedOver.size > 0 ? Infinity : this.size
    const waiting = (await this.shelf.in(is.waiting).limit(most).toArray()).filter((k) => !this.skips(k))
    const first = waiting[0]
    if (!first) return this.endRound()
    const end = waiting.findIndex((k) => k.topic !== first.topic)
    const some = (end < 0 ? waiting : waiting.slice(0, end)).slice(0, this.size)
    let answer
    try {
      answer = await post(first.topic, some)
    } catch {
      this.state.signal = 'none'
      return false
    }
    const { status } = answer.response
    if (answer.data) {
      const refused = 'refused' in answer.data ? answer.data.refused : []
      await this.settle(some, refused)
      const arrived = new Set(some.map((k) => k.id))
      for (const hear of this.listeners.get(first.topic) ?? []) hear(answer.data, arrived)
      await this.count()
      this.state.signal = 'ok'
      this.tookAny = true
      return true
    }
    if (status === 401 || status === 403) this.state.signal = 'signed out'
    else if (noServer(answer.response)) this.state.signal = 'none'
    else if (later.has(status)) this.isInTrouble(answer.error?.title)
    else return this.oneByOne(some, faulty.has(status), answer.error?.detail)
    return false
  }

  private isInTrouble(said = '') {
    this.state.signal = 'trouble'
    this.state.said = said
  }

  /** What the server broke off over waits for the round to end, and with a session's
   * beginning all that belongs to it. */
  private skips(k: Kept): boolean {
    const [kind, id = ''] = k.topic.split('/')
    return this.passedOver.has(k.id) || (kind === 'session' && this.passedOver.has(id))
  }

  /** All was tried. Where the server took others, it is the entry that it breaks off
   * over, which is set aside; where it took none, it is the server. */
  private async endRound(): Promise<boolean> {
    this.size = batch
    const over = [...this.passedOver]
    this.passedOver.clear()
    const [waiting, took] = [await this.shelf.in(is.waiting).toArray(), this.tookAny]
    this.tookAny = false
    if (over.length > 0 && !took) this.isInTrouble()
    else {
      const culprits = waiting.filter((k) => over.includes(k.id))
      await this.settle(
        culprits,
        culprits.map((k) => ({ id: k.id, say: brokeOff })),
      )
      this.state.signal = 'ok'
    }
    await this.count()
    return false
  }

  private async settle(sent: Kept[], refused: Schemas['RefusedEntry'][]) {
    await this.shelf.transaction('rw', this.shelf.entries, async () => {
      for (const k of sent) {
        const why = refused.find((r) => r.id === k.id)
        if (why) await this.shelf.entries.update(k.id, { state: is.refused, refused: why.say })
        else if (k.topic.startsWith('session/')) await this.shelf.entries.update(k.id, { state: is.sent })
        else await this.shelf.entries.delete(k.id)
      }
    })
  }

  /** A batch that can't be taken is sent one by one; the one that can't be
   * taken by itself stays here, with the reason. */
  private async oneByOne(some: Kept[], itsOwn: boolean, why = brokeOff): Promise<boolean> {
    const [only, ...more] = some
    if (!only || more.length > 0) this.size = 1
    else if (itsOwn) await this.settle(some, [{ id: only.id, say: why }]).then(() => this.count())
    else {
      this.passedOver.add(only.id)
      if (only.topic.startsWith('start/')) this.passedOver.add((only.entry as Begun).id)
    }
    return true
  }
}

let box: { key: string; outbox: Outbox } | undefined

/** Closes the outbox that is open: nobody is signed in any more. */
export function shut() {
  box?.outbox.close()
  box = undefined
}

/** The outbox of a user in a practice; another user's is closed. */
export function outboxOf(user: string, practice: string): Outbox {
  const key = `${practice}/${user}`
  if (box?.key !== key) {
    shut()
    box = { key, outbox: new Outbox(user, practice) }
  }
  return box.outbox
}
