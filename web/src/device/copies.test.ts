import { expect, test } from 'vitest'
import { copiesOf, copyOf, keepCopy, shownFrom } from './copies'
import { Shelf } from './shelf'
import { json } from './testing'
import { within } from './within'

const url = (path: string) => `http://yard.example${path}`

test('what is read on a yard is there without a signal, with the time it is from', async () => {
  copiesOf(new Shelf('copies', 'practice'))
  await keepCopy(url('/api/horses/h'), json({ name: 'Moth' }))
  await keepCopy(url('/api/horses/h'), json({ name: 'Moth again' }))
  const kept = await copyOf(url('/api/horses/h'))
  expect(await kept?.json()).toEqual({ name: 'Moth again' })
  expect(shownFrom.value).toBeGreaterThan(0)
  expect(await copyOf(url('/api/horses/other'))).toBeUndefined()
})

test('who is signed in, pictures and running sessions are not kept', async () => {
  copiesOf(new Shelf('not kept', 'practice'))
  for (const path of ['/api/me', '/api/photographs/p', '/api/sessions/s', '/api/cases/c/assessment']) {
    await keepCopy(url(path), json({}))
    expect(await copyOf(url(path)), path).toBeUndefined()
  }
  await keepCopy(url('/api/horses/h'), json({}, 500))
  expect(await copyOf(url('/api/horses/h')), 'an error is no copy').toBeUndefined()
})

test('nothing is kept or shown while nobody is signed in', async () => {
  copiesOf(undefined)
  await keepCopy(url('/api/horses/h'), json({}))
  expect(await copyOf(url('/api/horses/h'))).toBeUndefined()
})

test('a page waits for the device only so long', async () => {
  expect(await within(50, Promise.resolve('here'))).toBe('here')
  expect(await within(5, new Promise(() => undefined))).toBeUndefined()
})
