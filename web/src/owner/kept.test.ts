import { describe, expect, it } from 'vitest'
import { blank, keep, read, standing } from './kept'

function shelf(start: Record<string, string> = {}, full = false): Storage {
  const kept = new Map(Object.entries(start))
  return {
    length: 0,
    clear: () => kept.clear(),
    key: () => null,
    getItem: (k) => kept.get(k) ?? null,
    removeItem: (k) => kept.delete(k),
    setItem: (k, v) => {
      if (full) throw new Error('full')
      kept.set(k, v)
    },
  }
}

const now = new Date(2026, 5, 3, 17, 5)

describe('what the phone keeps', () => {
  it('is read as it was kept, each link for itself', () => {
    const store = shelf()
    const log = blank('lead.back', 10, now)
    expect(keep('AAAAAAAA1', { waiting: [{ horse: 'moth', log }] }, store)).toBe(true)
    expect(read('AAAAAAAA1', store).waiting).toEqual([{ horse: 'moth', log }])
    expect(read('BBBBBBBB1', store).waiting).toEqual([])
  })

  it('begins anew where it is damaged, and says where nothing can be kept', () => {
    expect(read('AAAAAAAA1', shelf({ 'owner:AAAAAAAA': '{"wai' })).waiting).toEqual([])
    expect(read('AAAAAAAA1', shelf({ 'owner:AAAAAAAA': '{"waiting":7}' })).waiting).toEqual([])
    expect(keep('A', { waiting: [] }, shelf({}, true))).toBe(false)
  })
})

describe('a log', () => {
  it('begins with the usual minutes and nothing else filled in', () => {
    const log = blank('lead.back', 10, now)
    expect(log).toMatchObject({ step: 'lead.back', on: '2026-06-03', at: now.getTime(), done: true, minutes: 10, answers: [] })
    expect(log.arousal).toBeUndefined()
    expect(log.id).toHaveLength(36)
    expect(blank('lead.back', 10, now).id).not.toBe(log.id)
  })

  it('stands in the place of the one that it puts right', () => {
    const wrong = blank('lead.back', 10, now)
    const right = blank('lead.back', 12, now, wrong)
    expect(standing([wrong, right])).toEqual([right])
  })
})
