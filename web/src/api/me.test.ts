import { beforeEach, expect, test } from 'vitest'
import { background } from './client'
import { me, signIn, signOut, whoAmI } from './me'
import { Shelf } from '../device/shelf'
import { answers, json } from '../device/testing'

const wren = { id: 'wren', practice: 'p' }
const ash = { id: 'ash', practice: 'p' }
const copy = { path: '/api/horses/h', at: 1, body: '{}' }
const kept = (user: string) => new Shelf(user, 'p').copies.count()

const problem = (status: number, ended: boolean) =>
  new Response(JSON.stringify({ detail: 'no', ended }), { status, headers: { 'Content-Type': 'application/problem+json' } })

beforeEach(async () => {
  answers(() => json(wren))
  await signIn('wren@example.org', 'x')
  await new Shelf('wren', 'p').copies.put(copy)
})

test('signing out takes along what was kept', async () => {
  answers(() => new Response(null, { status: 204 }))
  await signOut()
  expect([await kept('wren'), me.value]).toEqual([0, null])
})

test('without a signal nobody is signed out, and nothing goes', async () => {
  answers(() => {
    throw new TypeError('no signal')
  })
  await expect(signOut()).rejects.toThrow('does not answer')
  expect([await kept('wren'), me.value?.id]).toEqual([1, 'wren'])
})

test('a sign-in that was ended from elsewhere takes it along at the next contact', async () => {
  answers(() => problem(401, true))
  await background.GET('/api/people')
  expect([await kept('wren'), me.value?.id], 'the page stays, what was typed too').toEqual([0, 'wren'])
})

test('one that ran out while a page is open takes nothing along', async () => {
  answers(() => problem(401, false))
  await background.GET('/api/people')
  expect(await kept('wren')).toBe(1)
})

test('one that ran out before the page was opened does', async () => {
  me.value = undefined
  answers(() => problem(401, false))
  expect(await whoAmI()).toBe(null)
  expect(await kept('wren')).toBe(0)
})

test('another who signs in does not find what was kept before', async () => {
  answers(() => json(ash))
  await signIn('ash@example.org', 'x')
  expect(await kept('wren')).toBe(0)
})
