import { expect, test } from 'vitest'
import { Trouble } from '../../api/client'
import type { Schemas } from '../../api/types'
import { until } from '../../device/testing'
import { useWording } from './useWording'

const sentence = (id: string, change: object = {}) => ({ id, said: { key: id, text: `said ${id}` }, basis: `b-${id}`, ...change })
type Page = { version: number; sections: Schemas['ReportSection'][] }
const page = (version: number, ...sentences: object[]) =>
  ({ version, sections: [{ key: 's', title: { text: 'In short' }, sentences }] }) as unknown as Page

type Body = { version: number; edits: Record<string, { text: string; basis: string; left_out?: boolean }> }

async function worded(read: Page, keep: (body: Body) => Promise<Page> = () => Promise.reject(new Error('not asked'))) {
  const w = useWording(
    () => Promise.resolve(read),
    (body) => keep(body as Body),
  )
  await until(() => w.data.value !== undefined)
  return w
}

test('what was worded is taken as it is kept; one whose numbers changed is worded anew', async () => {
  const w = await worded(
    page(
      3,
      sentence('a', { edited: 'mine' }),
      sentence('b', { edited: 'old', changed: true }),
      sentence('c', { left_out: true, reason: 'private' }),
      sentence('d'),
    ),
  )
  expect(w.edits.value).toMatchObject({
    a: { text: 'mine', basis: 'b-a' },
    b: { text: 'old', basis: '' },
    c: { left_out: true, reason: 'private' },
  })
  expect(w.edits.value).not.toHaveProperty('d')
  expect(w.sections.value[0]?.sentences.map((s) => s.id)).toEqual(['a', 'b', 'd'])
  w.editing.value = true
  expect(w.sections.value[0]?.sentences).toHaveLength(4)
})

test('a sentence is changed, put back, and saved by the version that was read', async () => {
  const asked: Body[] = []
  const w = await worded(page(1, sentence('a')), (body) => {
    asked.push(body)
    return Promise.resolve(page(2, sentence('a', { edited: 'well' })))
  })
  const a = w.data.value?.sections[0]?.sentences[0]
  if (!a) throw new Error('no sentence')
  w.editing.value = true
  w.edit(a, { text: 'well' })
  await w.save()
  expect(asked).toEqual([{ version: 1, edits: { a: { text: 'well', basis: 'b-a' } } }])
  expect([w.editing.value, w.saved.value]).toEqual([false, true])
  w.edit(a)
  expect(w.edits.value).toEqual({})
  expect(w.saved.value).toBe(false)
})

test('somebody was sooner: both are shown, and mine is saved on theirs', async () => {
  const asked: Body[] = []
  const w = await worded(page(1, sentence('a')), (body) => {
    asked.push(body)
    if (body.version === 1)
      return Promise.reject(
        new Trouble(409, 'changed', {}, { version: 4, saved_by: 'Ash', edits: { a: { text: 'theirs', basis: '' } } }),
      )
    return Promise.resolve(page(5, sentence('a', { edited: 'mine' })))
  })
  const a = w.data.value?.sections[0]?.sentences[0]
  if (!a) throw new Error('no sentence')
  w.editing.value = true
  w.edit(a, { text: 'mine' })
  await w.save()
  expect(w.differing.value).toEqual([{ name: 'In short', mine: 'mine', theirs: 'theirs' }])
  expect(w.editing.value).toBe(true)
  await w.mine()
  expect(asked.map((b) => b.version)).toEqual([1, 4])
  expect(w.saved.value).toBe(true)
})
