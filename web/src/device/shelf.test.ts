import Dexie from 'dexie'
import { expect, test } from 'vitest'
import { forget } from './forget'
import { Shelf, state } from './shelf'

/** A shelf as an earlier version of the product left it on a device. */
async function left(user: string, version: number, stores: Record<string, string>, entries: object[], settings: object[] = []) {
  const old = new Dexie(`ivorybridge-practice-${user}`)
  old.version(version).stores(stores)
  await old.open()
  await old.table('entries').bulkAdd(entries)
  await old.table('settings').bulkAdd(settings)
  old.close()
}

const rep = (id: string, at: number) => ({ id, kind: 'rep', at, rep: { step: 'lead.halt', answer: 'accepted' } })

test('what the first version kept is still on its way', async () => {
  await left(
    'first',
    1,
    { entries: 'id, [session+seq], seq', settings: 'key' },
    [
      { id: 'b', session: 's', seq: 2, entry: rep('b', 20) },
      { id: 'a', session: 's', seq: 1, entry: rep('a', 10) },
    ],
    [{ key: 'device', value: 'tablet' }],
  )
  const shelf = new Shelf('first', 'practice')
  const kept = await shelf.of('session/s').toArray()
  expect(kept.map((k) => [k.id, k.topic, k.state, k.at])).toEqual([
    ['a', 'session/s', state.waiting, 10],
    ['b', 'session/s', state.waiting, 20],
  ])
  expect(await shelf.setting('device')).toBe('tablet')
  expect(await shelf.copies.count()).toBe(0)
})

test('what the second version kept keeps its place, and what was refused stays refused', async () => {
  await left('second', 2, { entries: 'id, [topic+seq], seq', settings: 'key' }, [
    { id: 'a', topic: 'session/s', seq: 1, entry: rep('a', 10), refused: 'no such step' },
    { id: 'b', topic: 'session/s', seq: 2, entry: rep('b', 20) },
  ])
  const shelf = new Shelf('second', 'practice')
  expect((await shelf.in(state.refused).toArray()).map((k) => k.id)).toEqual(['a'])
  expect((await shelf.in(state.waiting).toArray()).map((k) => k.id)).toEqual(['b'])
})

test('what was kept to be read goes with its user, and what is unsent stays', async () => {
  localStorage.setItem('hold-s', '{}')
  localStorage.setItem('ivorybridge-keys', 'off')
  const shelf = new Shelf('tablet', 'practice')
  const entry = (id: string, s: number) => ({
    id,
    topic: 'session/s' as const,
    seq: s + 1,
    at: 1,
    state: s,
    entry: rep(id, 1) as never,
  })
  await shelf.entries.bulkAdd([entry('waits', state.waiting), entry('refused', state.refused), entry('arrived', state.sent)])
  await shelf.copies.put({ path: '/api/horses/h', at: 1, body: '{}' })
  await shelf.settings.bulkPut([
    { key: 'device', value: 'tablet' },
    { key: 'seq', value: 3 },
    { key: 'brief-h', value: { name: 'Moth' } },
  ])
  const other = new Shelf('another', 'practice')
  await other.copies.put({ path: '/api/horses/h', at: 1, body: '{}' })
  await forget('tablet', 'practice')
  expect((await shelf.entries.toArray()).map((k) => k.id).sort()).toEqual(['refused', 'waits'])
  expect(await shelf.copies.count()).toBe(0)
  expect((await shelf.settings.toArray()).map((s) => s.key).sort()).toEqual(['device', 'seq'])
  expect(await other.copies.count()).toBe(1)
  expect([localStorage.getItem('hold-s'), localStorage.getItem('ivorybridge-keys')]).toEqual([null, 'off'])
})

test('nobody reads what another user kept', async () => {
  const mine = new Shelf('me', 'practice')
  await mine.settings.put({ key: 'secret', value: 1 })
  expect(await new Shelf('another', 'practice').setting('secret')).toBeUndefined()
  expect(await new Shelf('me', 'elsewhere').setting('secret')).toBeUndefined()
  expect(await new Shelf('me', 'practice').setting('secret')).toBe(1)
})
