import { beforeEach, expect, test, vi } from 'vitest'
import { Outbox } from './outbox'
import { state, type Kept } from '../device/shelf'
import { answers, json, noSignal, until } from '../device/testing'

const topic = 'session/11111111-1111-4111-8111-111111111111' as const
const rep = (answer: 'accepted' | 'refused') => ({ kind: 'rep' as const, rep: { step: 'lead.halt', answer } })
interface Sent {
  entries: { id: string; seq: number; at: number; device: string }[]
  quiet: boolean
}

let n = 0
let box: Outbox

beforeEach(() => {
  answers(noSignal)
  box = new Outbox(`user ${++n}`, 'practice')
  return () => box.close()
})

/** A server that takes all but those it is told to refuse. */
function takes(refuse: (id: string) => string | undefined = () => undefined) {
  const got: Sent[] = []
  answers(async (request) => {
    const body = (await request.json()) as Sent
    got.push(body)
    const refused = body.entries.flatMap((e) => {
      const say = refuse(e.id)
      return say ? [{ id: e.id, say }] : []
    })
    return json({ refused, told: { count: 0 } })
  })
  return got
}

test('a tap is kept before anything is sent, and goes in order once there is a signal', async () => {
  const ids: string[] = []
  for (const a of ['accepted', 'refused', 'accepted'] as const) ids.push((await box.add(topic, rep(a))).id)
  await until(() => box.state.signal === 'none')
  expect(box.state.waiting).toBe(3)
  const kept = await box.waiting(topic)
  expect(kept.map((k) => k.id)).toEqual(ids)
  expect(kept.map((k) => k.seq)).toEqual([1, 2, 3])

  const got = takes()
  await box.send()
  await until(() => box.state.waiting === 0)
  expect(got.flatMap((b) => b.entries.map((e) => e.id))).toEqual(ids)
  expect(got.every((b) => b.quiet)).toBe(true)
  expect(new Set(got.flatMap((b) => b.entries.map((e) => e.device))).size).toBe(1)
  expect((await box.of(topic)).map((k) => k.state)).toEqual([state.sent, state.sent, state.sent])
  expect(box.state.signal).toBe('ok')
})

test('what the server can not take stays here with its reason, and holds nothing else up', async () => {
  const bad = await box.add(topic, rep('refused'))
  const good = await box.add(topic, rep('accepted'))
  takes((id) => (id === bad.id ? 'That is not a step.' : undefined))
  await box.send()
  await until(() => box.state.waiting === 0)
  expect((await box.refusedOf(topic)).map((k) => [k.id, k.refused])).toEqual([[bad.id, 'That is not a step.']])
  expect((await box.of(topic)).find((k) => k.id === good.id)?.state).toBe(state.sent)
  expect(box.state.refused).toBe(1)
  await box.forgive([bad.id])
  expect(box.state.refused).toBe(0)
})

test('a batch that breaks is sent one by one', async () => {
  const first = await box.add(topic, rep('accepted'))
  await box.add(topic, rep('refused'))
  const sizes: number[] = []
  answers(async (request) => {
    const { entries } = (await request.json()) as Sent
    sizes.push(entries.length)
    if (entries.some((e) => e.id === first.id)) return json({ detail: 'too large' }, 413)
    return json({ refused: [], told: { count: 0 } })
  })
  await box.send()
  await until(() => box.state.waiting === 0)
  expect(sizes).toContain(2)
  expect(sizes.slice(1).every((s) => s === 1)).toBe(true)
  expect((await box.refusedOf(topic)).map((k) => k.refused)).toEqual(['too large'])
})

test.each([
  [401, 'signed out'],
  [500, 'trouble'],
  [503, 'none'],
])('an answer of %i loses nothing and is said as %s', async (status, says) => {
  answers(() => json({ detail: 'no' }, status))
  await box.add(topic, rep('accepted'))
  await box.send()
  await until(() => box.state.signal === says)
  expect((await box.waiting(topic)).length).toBe(1)
})

const problem = (title: string, status: number) =>
  new Response(JSON.stringify({ title }), { status, headers: { 'Content-Type': 'application/problem+json' } })

test.each([503, 507])('what befalls the server (%i) is said in its words, and nothing is set aside', async (status) => {
  answers(() => problem("the server's disk is full", status))
  await box.add(topic, rep('accepted'))
  await box.send()
  await until(() => box.state.signal === 'trouble')
  expect(box.state.said).toBe("the server's disk is full")
  expect((await box.waiting(topic)).length).toBe(1)
  takes()
  await box.send()
  await until(() => box.state.waiting === 0)
  expect(box.state.signal).toBe('ok')
})

test('what the server breaks off over is set aside with a word, and the rest is sent', async () => {
  const poison = await box.add(topic, rep('refused'))
  for (let i = 0; i < 3; i++) await box.add(topic, rep('accepted'))
  answers(async (request) => {
    const { entries } = (await request.json()) as Sent
    return entries.some((e) => e.id === poison.id) ? json({}, 500) : json({ refused: [], told: { count: 0 } })
  })
  await box.send()
  await until(() => box.state.waiting === 0)
  expect((await box.setAside()).map((k) => [k.id, k.refused])).toEqual([
    [poison.id, expect.stringContaining('broke off over this')],
  ])
  expect((await box.of(topic)).filter((k) => k.state === state.sent).length).toBe(3)
  expect(box.state.signal).toBe('ok')
})

test.each([500, 421, 418])('where %i is all it says, it is the server: nothing is set aside', async (status) => {
  await box.add(topic, rep('accepted'))
  await box.add(topic, rep('refused'))
  answers(() => json({}, status))
  await box.send()
  await until(() => box.state.signal === 'trouble')
  expect((await box.waiting(topic)).length).toBe(2)
  expect(await box.setAside()).toEqual([])
})

test('a session that can not begin is set aside, and holds up no other', async () => {
  const id = '33333333-3333-4333-8333-333333333333'
  const begun = `start/22222222-2222-4222-8222-222222222222/${id}` as const
  await box.begin(begun, { id, started_at: 1, zone: 'UTC', readiness: {} as never })
  await box.add(topic, rep('accepted'))
  answers((request) =>
    new URL(request.url).pathname.endsWith('/sessions') ? json({}, 500) : json({ refused: [], told: { count: 0 } }),
  )
  await box.send()
  await until(async () => (await box.of(topic))[0]?.state === state.sent && box.state.refused === 1)
  expect((await box.refusedOf(begun)).length).toBe(1)
})

test('a session that began without a signal goes before its entries', async () => {
  const begun = 'start/22222222-2222-4222-8222-222222222222/11111111-1111-4111-8111-111111111111' as const
  await box.begin(begun, { id: '11111111-1111-4111-8111-111111111111', started_at: 1, zone: 'UTC', readiness: {} as never })
  await box.add(topic, rep('accepted'))
  const paths: string[] = []
  answers((request) => {
    paths.push(new URL(request.url).pathname)
    return json({ refused: [], told: { count: 0 } })
  })
  await box.send()
  await until(() => box.state.waiting === 0)
  expect(paths.map((p) => p.split('/').at(-1))).toEqual(['sessions', 'entries'])
  expect(await box.of(begun)).toEqual([])
})

test('who listens hears what arrived, until it stops', async () => {
  takes()
  const heard: string[][] = []
  const stop = box.onTold(topic, (_answer, arrived) => heard.push([...arrived]))
  const one = await box.add(topic, rep('accepted'))
  await until(() => heard.length === 1)
  expect(heard[0]).toEqual([one.id])
  stop()
  await box.add(topic, rep('accepted'))
  await until(async () => (await box.waiting(topic)).length === 0)
  expect(heard.length).toBe(1)
})

test('what waits too long is called old', async () => {
  const now = vi.spyOn(Date, 'now').mockReturnValue(1000)
  await box.add(topic, rep('accepted'))
  expect(box.old).toBe(false)
  now.mockReturnValue(1000 + 24 * 3600_000 + 1)
  expect(box.old).toBe(true)
  now.mockRestore()
})

test('another page of the same user finds all that waits', async () => {
  const one = await box.add(topic, rep('accepted'))
  const again = new Outbox(`user ${n}`, 'practice')
  await until(() => again.state.counted)
  expect(again.state.waiting).toBe(1)
  expect((await again.all()).map((k: Kept) => k.id)).toEqual([one.id])
  again.close()
})
