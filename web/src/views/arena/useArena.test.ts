import { beforeEach, expect, test, vi } from 'vitest'
import { Outbox } from '../../offline/outbox'
import { answers, json, noSignal, until } from '../../device/testing'
import { useArena } from './useArena'

// The rules are held by the tests of the core; here they only count what they are
// told.
const heard = vi.hoisted(() => ({ opened: [] as { id: string }[][], added: [] as { id: string }[] }))
vi.mock('../../rules/rules', () => {
  const picture = (entries: { id: string; kind: string }[]) => ({
    advice: { action: 'same', rule: '15', next: { step: 'lead.halt', target: 0 }, numbers: { arousal: 1 } },
    beads: [],
    recent: entries
      .filter((e) => e.kind !== 'advice')
      .map((e) => ({ id: e.id, kind: e.kind, answers: e.kind === 'rep' }))
      .reverse(),
    would: [],
    at: { step: 'lead.back', start_level: 1 },
    last: entries.filter((e) => e.kind === 'rep').at(-1),
    count: entries.length,
    stands: entries.length,
    ended: false,
  })
  let track: { id: string; kind: string }[] = []
  const ask = (name: string, asked: { track: typeof track; entries: typeof track }) => {
    if (name === 'open') {
      track = [...asked.track]
      heard.opened.push(asked.track)
    }
    if (name === 'add') {
      track = [...track, ...asked.entries]
      heard.added.push(...asked.entries)
      return Promise.resolve({ refused: [], told: picture(track) })
    }
    if (name === 'asks') return Promise.resolve({ asks: [], cards: [] })
    return Promise.resolve(picture(track))
  }
  return { theRules: () => ({ ask, read: () => Promise.resolve() }) }
})

const id = '33333333-3333-4333-8333-333333333333'
const topic = `session/${id}` as const
const rep = (step = 'lead.halt') => ({ kind: 'rep' as const, rep: { step, answer: 'accepted' as const } })
const kept = (track: object[]) => ({
  id,
  track,
  brief: {},
  beginning: { ask: {} },
  rules: {},
  words: {},
  catalog: 'v',
  now: Date.now(),
})

let n = 0
let box: Outbox
beforeEach(() => {
  heard.opened.length = heard.added.length = 0
  answers(noSignal)
  box = new Outbox(`arena ${++n}`, 'practice')
  return () => box.close()
})

test('it opens with what the server has and what waits here, but not with what was refused', async () => {
  const refused = await box.add(topic, rep('no.step'))
  answers(() => json({ refused: [{ id: refused.id, say: 'no' }], told: { count: 0 } }))
  await box.send()
  await until(() => box.state.refused === 1)
  answers(noSignal)
  const waits = await box.add(topic, rep())
  answers((request) => (request.method === 'GET' ? json(kept([{ id: 'there', kind: 'rep', at: 1 }])) : noSignal(request)))
  const arena = useArena(id, box)
  await until(() => heard.opened.length > 0)
  expect(heard.opened[0]?.map((e) => e.id)).toEqual(['there', waits.id])
  arena.stop()
})

test('a tap is on this device before the rules hear of it, after the advice that was shown', async () => {
  await box.keep(`arena ${id}`, kept([]))
  const arena = useArena(id, box)
  await until(() => arena.now !== undefined)
  await arena.log(rep())
  const here = await box.of(topic)
  expect(here.map((k) => (k.entry as { kind: string }).kind)).toEqual(['advice', 'rep'])
  expect(heard.added.map((e) => e.id)).toEqual(here.map((k) => k.id))
  arena.stop()
})

test('undo and correction name the newest that stands', async () => {
  await box.keep(`arena ${id}`, kept([]))
  const arena = useArena(id, box)
  await until(() => arena.now !== undefined)
  await arena.log(rep())
  const first = heard.added.at(-1)?.id
  await arena.correct({ arousal: 2 })
  const better = heard.added.findLast((e) => (e as { kind?: string }).kind === 'rep') as
    { replaces?: string; rep?: object } | undefined
  expect(better?.replaces).toBe(first)
  expect(better?.rep).toMatchObject({ step: 'lead.halt', answer: 'accepted', arousal: 2 })
  await arena.undo()
  const undone = heard.added.findLast((e) => (e as { kind?: string }).kind === 'undo') as { replaces?: string } | undefined
  expect(undone?.replaces).toBe(arena.now?.recent[1]?.id)
  arena.stop()
})

test('the card stays where it was put, and moves only after an answer', async () => {
  await box.keep(`arena ${id}`, kept([]))
  const arena = useArena(id, box)
  await until(() => arena.now !== undefined)
  expect(arena.current.step).toBe('lead.halt') // as it is advised to begin
  await arena.changeAsk({ step: 'load.front' })
  expect(arena.current.step).toBe('load.front')
  await arena.mark({ arousal: 2 })
  expect(arena.current.step).toBe('load.front')
  expect(arena.elsewhere?.step).toBe('lead.halt')
  await arena.log(rep('load.front'))
  expect(arena.current.step).toBe('lead.halt')
  expect(arena.from?.step).toBe('load.front')
  await arena.correct({ arousal: 1 })
  expect(arena.current.step).toBe('lead.halt')
  await arena.back()
  expect(arena.current.step).toBe('load.front')
  expect(heard.added.at(-1)).toMatchObject({ kind: 'mark', mark: { ask: { step: 'load.front' } } })
  arena.stop()
})
