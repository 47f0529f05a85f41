import Dexie from 'dexie'
import { expect, test } from 'vitest'
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

test('nobody reads what another user kept', async () => {
  const mine = new Shelf('me', 'practice')
  await mine.settings.put({ key: 'secret', value: 1 })
  expect(await new Shelf('another', 'practice').setting('secret')).toBeUndefined()
  expect(await new Shelf('me', 'elsewhere').setting('secret')).toBeUndefined()
  expect(await new Shelf('me', 'practice').setting('secret')).toBe(1)
})
