import { expect, test } from 'vitest'
import { arched, lines, nearby, piers, said, worded, type Bridge, type Plank } from './bridge'

const plank = (step: string, state: string, more: Partial<Plank> = {}): Plank => ({
  step,
  name: step,
  state: state as Plank['state'],
  says: { key: 'known.sessions', text: state },
  parts: [{ state: state as Plank['state'] }],
  ...more,
})
const bridge = (planks: Plank[], under: Plank[] = []): Bridge => ({
  ladder: 'load',
  name: 'trailer loading',
  planks,
  piers: under,
  steps: planks.length,
  sources: [],
  progress: 0,
  blocked: 0,
  met: 0,
})
const many = (n: number, state = 'untried') => Array.from({ length: n }, (_, i) => plank(`${i}`, state))

test('planks stand between the banks, one beside the other, highest in the middle', () => {
  for (const n of [1, 2, 3, 13, 28]) {
    for (const width of [660, 1088, 1700]) {
      const list = arched(bridge(many(n)), width)
      for (const [i, p] of list.entries()) {
        expect(p.x - p.width / 2).toBeGreaterThan(0)
        expect(p.x + p.width / 2).toBeLessThan(width)
        const before = list[i - 1]
        if (before) expect(p.x - before.x).toBeGreaterThanOrEqual(p.width)
      }
      const top = Math.min(...list.map((p) => p.y))
      expect(list[Math.floor(n / 2)]?.y).toBe(top)
    }
  }
})

test('piers do not stand in each other, and an own one stands under its plank', () => {
  const shared = many(6).map((p) => ({ ...p, step: `pier ${p.step}` }))
  const own = plank('past', 'untried', { under: '9' })
  const b = bridge(many(13), [...shared, own])
  const planks = arched(b, 1088)
  const list = piers(b, 1088, planks)
  expect(list).toHaveLength(7)
  for (const [i, p] of list.entries()) {
    const before = list[i - 1]
    if (before) expect(p.x - before.x).toBeGreaterThan(p.width)
  }
  const past = list.find((p) => p.plank.step === 'past')
  expect(Math.abs((past?.x ?? 0) - (planks[9]?.x ?? 0))).toBeLessThan(30)
})

test('a phone shows the planks around the work, and five of them', () => {
  const at = (n: number, of = 13) => nearby(bridge(many(of).map((p, i) => ({ ...p, next: i === n })))).map((p) => p.step)
  expect(at(6)).toEqual(['4', '5', '6', '7', '8'])
  expect(at(0)).toEqual(['0', '1', '2', '3', '4'])
  expect(at(12)).toEqual(['8', '9', '10', '11', '12'])
  expect(at(1, 3)).toEqual(['0', '1', '2'])
})

test('where nothing is next, a phone shows the first plank that is not met, or else the goal', () => {
  const half = many(13).map((p, i) => (i < 7 ? plank(p.step, 'kept') : p))
  expect(nearby(bridge(half)).map((p) => p.step)).toContain('7')
  const all = many(13, 'met').map((p, i) => ({ ...p, beyond: i > 9 }))
  expect(nearby(bridge(all)).map((p) => p.step)).toContain('9')
})

test('a long name turns to two lines and is never cut', () => {
  expect(lines('any time', 9)).toEqual(['any time'])
  expect(lines('a horse not yet ridden', 9).join(' ')).toBe('a horse not yet ridden')
  expect(lines('a horse not yet ridden', 9)).toHaveLength(2)
  expect(lines('unmistakable', 9)).toEqual(['unmistakable'])
})

test('each run of planks says its state once, and what lies beyond says none', () => {
  const states = ['kept', 'kept', 'met', 'untried', 'untried', 'untried']
  const b = bridge(states.map((s, i) => plank(`${i}`, s, { beyond: i === 5 })))
  const chosen = worded(arched(b, 1088), [])
  expect(chosen.size).toBe(3)
  expect(chosen.has('5')).toBe(false)
})

test('a plank is said with its state, and why it is barred', () => {
  expect(said(plank('tie', 'met'))).toBe('met')
  const barred = plank('tie', 'met', { beyond: true, blocked: { key: 'block.body', text: 'Blocked: back, suspect.' } })
  expect(said(barred)).toBe('beyond the goal, blocked. Blocked: back, suspect.')
})
