// A session in the arena: its track as it is kept here, and what the rules on
// this device say of it after each tap. The server hears of it when it can.
import { v7 } from 'uuid'
import { computed, reactive, ref, shallowRef } from 'vue'
import { ahead, api, told, type Trouble } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import type { Outbox, Said, Topic } from '../../offline/outbox'
import { state as is } from '../../device/shelf'
import { askKey, beadOf, type Bead } from '../../parts/beads'
import { theRules, type Entry, type Picture } from '../../rules/rules'

export type ArenaSession = Omit<Schemas['Arena'], 'told' | 'now'>
export type Rep = Schemas['TrackRep']
type Mark = Schemas['TrackMark']
/** What can be said more of an answer, of whatever kind it is. */
export type Change = Partial<Rep>

export interface CurrentAsk {
  step: string
  variant?: string
  target?: number
}

export const keptKey = (id: string) => `arena ${id}`
/** A device's clock that is off by more than this is not believed. */
const slack = 5 * 60_000

/** What can be said of any answer, also one without a rope. */
function observed(change: Change) {
  const keys = ['arousal', 'signs', 'ways_out', 'came_from'] as const
  return Object.fromEntries(keys.filter((k) => k in change).map((k) => [k, change[k]]))
}

/** Opens a session in the rules on this device: what is kept of it here, and
 * what the server had of its track. */
export async function openHere(view: ArenaSession, mine: { state: number; entry: Entry }[], skew = 0) {
  const rules = theRules()
  await rules.read(view.catalog, async () => (await told(api.GET('/api/catalog'))).catalog)
  const own = mine.filter((k) => k.state !== is.refused).map((k) => (skew ? { ...k.entry, at: k.entry.at + skew } : k.entry))
  const track = [...view.track, ...own]
  const { brief, beginning, words } = view
  return { track, told: await rules.ask('open', { brief, beginning, rules: view.rules, words, track }) }
}

export function useArena(id: string, box: Outbox) {
  const topic = `session/${id}` as const satisfies Topic
  const rules = theRules()
  const picture = shallowRef<Picture>()
  const beadsTold = shallowRef<Schemas['ArenaTold'][]>([])
  const toldAt = ref(0)
  /** The ask on the card: it moves only after an answer, or by hand. */
  const at = shallowRef<CurrentAsk>({ step: '' })
  /** Where the card was before an answer moved it on. */
  const from = shallowRef<CurrentAsk>()
  const cards = shallowRef<Schemas['ArenaCard'][]>([])
  const choices = shallowRef<Schemas['ArenaChoice'][]>([])
  const other = ref(false)
  const holder = ref('')
  const known = new Set<string>()
  let skew = 0
  let turn: Promise<unknown> = Promise.resolve()
  let shownAfter = ''

  // Opening has its turn among the taps: none falls between the track as it is
  // read and the track as the rules have it.
  const { data, trouble, load } = useLoad(inTurn(read))

  async function read(): Promise<ArenaSession> {
    const view = await fetched()
    const mine = await box.of(topic)
    const arrived = new Set(view.track.map((e) => e.id))
    void box.forgive(mine.filter((k) => k.state === is.sent && arrived.has(k.id)).map((k) => k.id))
    const opened = await openHere(view, mine, skew)
    known.clear()
    for (const e of opened.track) known.add(e.id)
    await look(view)
    take(opened.told, true)
    await lookAgain()
    return view
  }

  /** The session as the server has it, else as it is kept here. */
  async function fetched(): Promise<ArenaSession> {
    try {
      // Once it is open, no sign-in is asked for over it: it goes on with what is here.
      const client = picture.value ? ahead : api
      const view = await told(client.GET('/api/sessions/{id}', { params: { path: { id } } }))
      const off = view.now - Date.now()
      skew = Math.abs(off) > slack ? off : 0
      box.keep(keptKey(id), view).catch(() => undefined) // what the server said is shown whatever this disk does
      return view
    } catch (error) {
      const kept = (error as Trouble).status === 401 && !picture.value ? undefined : await box.setting<ArenaSession>(keptKey(id))
      if (!kept) throw error
      return kept
    }
  }

  /** An entry at the time that the server will give it. */
  const onClock = (e: Entry): Entry => (skew ? { ...e, at: e.at + skew } : e)

  /** Takes what the rules say now, and follows their advice. */
  function take(p: Picture, opening = false) {
    beadsTold.value = [...beadsTold.value.slice(0, p.from ?? 0), ...p.beads]
    picture.value = p
    toldAt.value = Date.now()
    holder.value = p.holds ?? ''
    const after = p.recent[0]?.id ?? 'the beginning'
    if (after === shownAfter) return
    const opened = shownAfter === ''
    shownAfter = after
    other.value = false
    if (opened) at.value = firstAsk(p)
    else if (answeredNow(p)) move(p.advice.next)
    if (!p.ended && p.count > 0 && !(opening && known.size)) void inTurn(() => logAdvice(false))()
  }

  /** Where the card stands as the session is opened: on what is advised after an
   * answer, else on what was chosen. */
  function firstAsk(p: Picture): CurrentAsk {
    const ask = (p.recent[0]?.answers ?? true) ? (p.advice.next ?? p.at) : p.at
    return askOf(ask)
  }
  const askOf = (a: CurrentAsk): CurrentAsk => ({ step: a.step, variant: a.variant, target: a.target })

  /** The newest entry is an answer, and says no more of one that was there. */
  const answeredNow = (p: Picture) => p.recent[0]?.answers === true && !(p.last?.id === p.recent[0].id && p.last.replaces)

  /** After an answer the card goes on to the advised ask, and one tap takes it back. */
  function move(next?: CurrentAsk) {
    from.value = next && askKey(next) !== askKey(at.value) ? at.value : undefined
    if (next) at.value = askOf(next)
  }

  /** As time goes by the rules are asked again. */
  async function lookAgain() {
    if (picture.value) take(await rules.ask('tell', { now: Date.now() + skew }))
  }

  // What another device logged on this session comes with the next arrival.
  let takingUp = ''
  const unhear = box.onTold(topic, ({ told: t }, arrived) => {
    if (arrived.has(takingUp)) void load()
    void box.waiting(topic).then((waiting) => {
      if (t.count > known.size - waiting.length) void load()
    })
  })

  async function add(entry: Said<typeof topic>): Promise<string> {
    // What was advised to begin with is kept with the first thing done: until
    // then the track is empty, and the session can be thrown away.
    if (picture.value?.count === 0 && entry.kind !== 'advice') await logAdvice(false)
    const kept = await box.add(topic, entry)
    known.add(kept.id)
    const { refused, told } = await rules.ask('add', { entries: [onClock(kept.entry)], now: kept.at + skew })
    if (refused[0]) throw new Error(refused[0].say)
    take(told)
    return kept.id
  }

  /** Taps follow one another: each looks at what the one before has left. */
  function inTurn<A extends unknown[], R>(work: (...args: A) => Promise<R>): (...args: A) => Promise<R> {
    return (...args) => {
      const done = turn.then(() => work(...args))
      turn = done.catch(() => undefined)
      return done
    }
  }

  /** Advice that was shown is an entry too, and stands. */
  async function logAdvice(otherwise: boolean) {
    const a = picture.value?.advice
    if (!a) return
    const { action, rule, next } = a
    const ask = next && { step: next.step, variant: next.variant }
    await add({
      kind: 'advice',
      shown: {
        after: shownAfter,
        action,
        rule,
        next: ask ?? { step: '' },
        otherwise: otherwise || undefined,
        known: picture.value?.stands,
      },
    })
  }

  const beads = computed<Bead[]>(() => {
    const key = askKey(current.value)
    return beadsTold.value.filter((b) => askKey(b) === key).map(beadOf)
  })
  const last = computed(() => beadsTold.value.at(-1))
  /** What the newest entry that stands is. */
  const newest = computed(() => {
    const entry = picture.value?.recent[0]
    return entry?.kind === 'spell' && !entry.answers ? 'work' : entry?.kind
  })
  const newestAnswers = computed(() => picture.value?.recent[0]?.answers === true)

  /** The ask on the card, at the value that is advised for it now. */
  const current = computed<CurrentAsk>(() => {
    const next = picture.value?.advice.next
    return next && askKey(next) === askKey(at.value) ? askOf(next) : at.value
  })
  /** What is advised, where it is another ask than the card's. */
  const elsewhere = computed<CurrentAsk | undefined>(() => {
    const next = picture.value?.advice.next
    return next && askKey(next) !== askKey(at.value) ? askOf(next) : undefined
  })

  const cardOf = (step: string) => cards.value.find((c) => c.key === step)
  const card = computed(() => cardOf(current.value.step))
  const calm = computed(() => picture.value?.advice.numbers.arousal ?? 1)
  /** What stands against the ask on the card. */
  const against = computed(() => (elsewhere.value ? undefined : picture.value?.advice.against))

  function choose(ask: CurrentAsk) {
    from.value = undefined
    at.value = ask
  }

  /** The card goes back to where it was before it moved. */
  const back = () => from.value && changeAsk(from.value)

  /** What can be chosen now, and what stands against it. */
  async function look({ words }: ArenaSession) {
    const chosen = await rules.ask('asks', { words })
    choices.value = chosen.asks
    cards.value = chosen.cards
  }
  /** The open session's outing, by the clock that the server goes by. */
  const walk = (before: number) => rules.ask('walk', { before, now: Date.now() + skew })
  const lookAround = inTurn(async () => data.value && look(data.value))

  /** Something that no ladder names: it is added and asked. */
  const addOwn = inTurn(async (own: { name: string; sides: boolean; holds?: number }) => {
    const key = `own.${v7()}`
    await add({
      kind: 'mark',
      mark: { new: { key, ...own, sides: own.sides || undefined }, ask: { step: key, variant: own.sides ? 'near' : undefined } },
    })
    if (data.value) await look(data.value)
    choose({ step: key, variant: own.sides ? 'near' : undefined, target: picture.value?.at.target })
  })

  /** Why the ask at work is asked although it waits for something. */
  const because = inTurn((why: string) => add({ kind: 'mark', mark: { why } }))

  /** Another ask, chosen by hand: the track says so too. */
  const changeAsk = inTurn(async (ask: CurrentAsk, despite?: Mark['despite']) => {
    choose(ask)
    return add({ kind: 'mark', mark: { ask: { step: ask.step, variant: ask.variant }, despite } })
  })

  /** The plan was changed meanwhile: the session goes on by it, once the server has heard. */
  const takePlan = inTurn(async (planned: number) => {
    takingUp = await add({ kind: 'mark', mark: { plan: planned } })
  })

  const otherwise = inTurn(async () => {
    await logAdvice(true)
    other.value = true
  })

  /** Keeps an entry of any kind. */
  const log = inTurn(add)
  /** Marks something; with an id, says more of that mark. */
  const mark = inTurn((mark: Mark, note?: string, replaces?: string) => add({ kind: 'mark', mark, note, replaces }))

  /** The hooves of what is asked now, as they were tapped. Whoever rides can't tap: without
   * them, what the eye says is told as that. */
  const footfall = (landings?: Schemas['GaitLanding'][]) => {
    const { step, variant } = current.value
    const eye = landings ? undefined : true
    return mark(
      { footfall: { step, variant, landings: landings ?? [], eye } },
      eye ? 'four even beats, by eye' : 'footfall timed',
    )
  }

  /** Says more of the newest answer: a new entry that names it. */
  const correct = inTurn(async (change: Change) => {
    const e = picture.value?.last
    if (!e) return
    const was = e.rep ?? e.dose ?? e.offer ?? e.burst ?? e.spell
    const held = e.kind === 'rep' || e.kind === 'dose' ? change : observed(change)
    if (Object.keys(held).length) await add({ kind: e.kind, replaces: e.id, [e.kind]: { ...was, ...held } })
  })

  /** Undoes the newest entry that stands. */
  const undo = inTurn(async () => {
    const target = picture.value?.recent[0]?.id
    if (!target) return
    await add({ kind: 'undo', replaces: target })
    from.value = undefined
    if (picture.value) at.value = firstAsk(picture.value)
  })

  const end = inTurn((note: string) => add({ kind: 'end', note: note || undefined }))

  return reactive({
    data,
    trouble,
    load,
    now: picture,
    toldAt,
    told: beadsTold,
    beads,
    last,
    newest,
    newestAnswers,
    current,
    card,
    cardOf,
    against,
    elsewhere,
    from,
    back,
    choices,
    lookAround,
    walk,
    addOwn,
    because,
    takePlan,
    holder,
    other,
    calm,
    choose,
    changeAsk,
    otherwise,
    log,
    mark,
    footfall,
    correct,
    undo,
    end,
    lookAgain,
    stop: unhear,
  })
}
