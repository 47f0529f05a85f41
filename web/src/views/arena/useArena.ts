// A session in the arena: what the server says of it, what is kept here and
// not sent yet, and what is asked next. Advice is the server's alone.
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { api, told, type Schemas, type Trouble } from '../../api/client'
import { useLoad } from '../../api/use'
import type { Kept, Outbox, Said, Topic } from '../../offline/outbox'
import { askKey, beadOf, type Bead } from '../../parts/beads'

export type ArenaSession = Schemas['Arena']
export type Rep = Schemas['ArenaRep']
type Mark = Schemas['ArenaMark']
type Told = Schemas['Told']

export interface CurrentAsk {
  step: string
  variant?: string
  target?: number
}

const keptKey = (id: string) => `arena ${id}`

export function useArena(id: string, box: Outbox) {
  const { data, trouble, load } = useLoad(read)
  const now = shallowRef<Told>()
  const toldAt = ref(0)
  const topic = `session/${id}` as const satisfies Topic
  const waiting = shallowRef<Kept<typeof topic>[]>([])
  const own = shallowRef<CurrentAsk>()
  const other = ref(false)
  const handler = ref('')
  let shownAfter = ''

  async function read(): Promise<ArenaSession> {
    try {
      const view = await told(api.GET('/api/sessions/{id}', { params: { path: { id } } }))
      await box.keep(keptKey(id), view)
      take(view.told)
      handler.value ||= view.handler
      await refresh()
      return view
    } catch (error) {
      const kept = (error as Trouble).status === 0 ? await box.setting<ArenaSession>(keptKey(id)) : undefined
      if (!kept) throw error
      now.value ??= kept.told
      handler.value ||= kept.handler
      await refresh()
      return kept
    }
  }

  /** Takes what the server says now, and follows its advice. */
  function take(t: Told) {
    now.value = t
    toldAt.value = Date.now()
    const after = t.recent[0]?.id ?? 'the beginning'
    if (after === shownAfter) return
    shownAfter = after
    own.value = undefined
    other.value = false
    if (!t.ended) void logAdvice(false)
  }

  async function refresh() {
    waiting.value = await box.waiting(topic)
  }

  const arrived = new Set<string>()

  const unhear = box.onTold(topic, ({ told: t }, ids) => {
    for (const one of ids) arrived.add(one)
    waiting.value = waiting.value.filter((k) => !ids.has(k.id))
    take(t)
  })

  // Another tab may have sent what was tapped here.
  const unwatch = watch(
    () => box.state.waiting,
    (n) => n === 0 && waiting.value.length > 0 && void load(),
  )

  function stop() {
    unhear()
    unwatch()
  }

  async function add(entry: Said<typeof topic>): Promise<string> {
    const kept = await box.add(topic, entry)
    if (!arrived.has(kept.id)) waiting.value = [...waiting.value, kept]
    return kept.id
  }

  let turn: Promise<unknown> = Promise.resolve()

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
    const a = now.value?.advice
    if (!a) return
    const { action, rule, next } = a
    const ask = next && { step: next.step, variant: next.variant }
    await add({
      kind: 'advice',
      shown: { after: shownAfter, action, rule, next: ask ?? { step: '' }, otherwise: otherwise || undefined },
    })
  }

  const entries = computed(() => waiting.value.map((k) => k.entry))
  const undone = computed(() => new Set(entries.value.filter((e) => e.kind === 'undo').map((e) => e.replaces)))

  /** The reps as they stand, those not sent yet among them. */
  const reps = computed<(Rep & { id: string; waiting: boolean })[]>(() => {
    const list = (now.value?.beads ?? [])
      .filter((b) => !undone.value.has(b.id))
      .map((b) => ({ ...b, waiting: false }) as Rep & { id: string; waiting: boolean })
    for (const e of entries.value) {
      if (e.kind !== 'rep' || !e.rep || undone.value.has(e.id)) continue
      const at = e.replaces ? list.findIndex((r) => r.id === e.replaces) : -1
      if (at >= 0) list[at] = { ...e.rep, id: list[at]?.id ?? e.id, waiting: true }
      else list.push({ ...e.rep, id: e.id, waiting: true })
    }
    return list
  })

  const beads = computed<Bead[]>(() => {
    const key = askKey(current.value)
    const known = new Map((now.value?.beads ?? []).map((b) => [b.id, beadOf(b)]))
    return reps.value
      .filter((r) => askKey(r) === key)
      .map((r, i) => {
        const bead = known.get(r.id)
        if (bead && !r.waiting) return bead
        return {
          id: r.id,
          answer: r.answer,
          level: r.peak ?? null,
          n: bead?.n ?? i + 1,
          dip: bead?.dip ?? false,
          waiting: true,
          says: `${r.answer}, not sent yet`,
        }
      })
  })

  const last = computed(() => reps.value.at(-1))

  const newestIsRep = computed(() => {
    const own = entries.value.filter((e) => e.kind !== 'advice' && e.kind !== 'undo' && !undone.value.has(e.id)).at(-1)
    return (own ?? now.value?.recent.find((r) => !undone.value.has(r.id)))?.kind === 'rep'
  })

  const current = computed<CurrentAsk>(() => {
    if (own.value) return own.value
    const next = now.value?.advice.next
    const unsent = [...entries.value].reverse().find((e) => e.kind === 'rep' && !undone.value.has(e.id))?.rep
    if (unsent) return { step: unsent.step, variant: unsent.variant, target: unsent.target }
    if (next) return { step: next.step, variant: next.variant, target: next.target }
    const done = last.value
    return done ? { step: done.step, variant: done.variant, target: done.target } : { step: '' }
  })

  const card = computed(() => data.value?.cards.find((c) => c.key === current.value.step))

  function choose(ask: CurrentAsk) {
    own.value = ask
  }

  /** Another ask, chosen by hand: the track says so too. */
  const changeAsk = inTurn(async (ask: { step: string; variant?: string }) => {
    await add({ kind: 'mark', mark: { ask } })
    own.value = ask
  })

  const otherwise = inTurn(async () => {
    const before = last.value
    await logAdvice(true)
    other.value = true
    own.value = before ? { step: before.step, variant: before.variant, target: before.target } : current.value
  })

  /** Marks something; with an id, says more of that mark. */
  const mark = inTurn((mark: Mark, note?: string, replaces?: string) => add({ kind: 'mark', mark, note, replaces }))
  const rep = inTurn((rep: Rep) => add({ kind: 'rep', rep }))
  const spell = inTurn((spell: Schemas['ArenaSpell']) => add({ kind: 'spell', spell }))

  /** Corrects the newest rep: a new entry that names it. */
  const correct = inTurn(async (change: Partial<Rep>) => {
    const r = last.value
    if (!r) return
    await add({ kind: 'rep', replaces: r.id, rep: { ...plain(r), ...change } })
  })

  /** Undoes the newest entry that stands. */
  const undo = inTurn(async () => {
    const own = [...entries.value].reverse().find((e) => e.kind !== 'undo' && e.kind !== 'advice' && !undone.value.has(e.id))
    const target = own?.id ?? now.value?.recent.find((r) => !undone.value.has(r.id))?.id
    if (target) await add({ kind: 'undo', replaces: target })
  })

  const end = inTurn((note: string) => add({ kind: 'end', note: note || undefined }))

  const calm = computed(() => {
    const unsent = entries.value.map((e) => e.mark?.arousal ?? e.rep?.arousal).filter((a) => a != null)
    return unsent.at(-1) ?? now.value?.advice.numbers.arousal ?? 1
  })

  return reactive({
    data,
    trouble,
    load,
    now,
    toldAt,
    waiting,
    beads,
    reps,
    last,
    newestIsRep,
    current,
    card,
    handler,
    other,
    calm,
    choose,
    changeAsk,
    otherwise,
    mark,
    rep,
    spell,
    correct,
    undo,
    end,
    stop,
  })
}

/** Only what a rep holds, of a rep as it was told back. */
function plain(r: Rep & { id?: string }): Rep {
  const keys = [
    'step',
    'variant',
    'answer',
    'manner',
    'aid',
    'means',
    'form',
    'seconds',
    'to_try',
    'brought',
    'start',
    'first',
    'peak',
    'in_words',
    'target',
    'reached',
    'corrections',
    'pulses',
    'kicks',
    'release',
    'released',
    'arousal',
    'face',
    'signs',
    'ways_out',
    'held',
    'ended_by',
    'handler',
    'flags',
  ] as const satisfies readonly (keyof Rep)[]
  return Object.fromEntries(keys.filter((k) => r[k] !== undefined && r[k] !== null).map((k) => [k, r[k]])) as unknown as Rep
}
