import { beforeEach, expect, test, vi } from 'vitest'
import { effectScope, nextTick, reactive, type EffectScope } from 'vue'
import { useWalk } from './useWalk'

const felt = vi.hoisted(() => ({ minds: 0 }))
vi.mock('../useDevice', () => ({ mind: () => felt.minds++ }))

const state = (change: object) => ({
  phase: 'standing',
  owed: 100,
  falls: true,
  stand: 3,
  of: 45,
  out_for: 60,
  stops: [],
  ...change,
})

let told: { state?: object; reps?: object[] }
let pressed: string[]
let logged: object[]
let scope: EffectScope

function arena() {
  return reactive({
    now: { count: 1 },
    walk: () => Promise.resolve(told),
    mark: (m: { walk?: { button: string } }) => Promise.resolve(pressed.push(m.walk?.button ?? '')),
    log: (e: object) => Promise.resolve(logged.push(e)),
  })
}

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 })
  told = { state: state({}) }
  pressed = []
  logged = []
  felt.minds = 0
  scope = effectScope()
  return () => {
    scope.stop()
    vi.useRealTimers()
  }
})

function walking() {
  const walk = scope.run(() => useWalk(arena() as never, () => 0))
  if (!walk) throw new Error('the scope is over')
  return walk
}

test('between two tellings its clocks run on, and one buzz says that a stand is over', async () => {
  const walk = walking()
  await vi.advanceTimersByTimeAsync(0)
  expect(walk.owed.value).toBe(100)
  await vi.advanceTimersByTimeAsync(2000)
  expect(walk.owed.value).toBeCloseTo(98, 1)
  expect(walk.toStand.value).toBeCloseTo(1, 1)
  expect(felt.minds).toBe(0)
  await vi.advanceTimersByTimeAsync(1500)
  await nextTick()
  expect(walk.toStand.value).toBe(0)
  expect(felt.minds).toBe(1)
})

test('what is owed stands while it walks, and the way out counts up', async () => {
  told = { state: state({ falls: false, of: 0 }) }
  const walk = walking()
  await vi.advanceTimersByTimeAsync(3000)
  expect(walk.owed.value).toBe(100)
  expect(walk.standing.value).toBe(false)
  told = { state: state({ phase: 'out', falls: false, of: 0 }) }
  await walk.look()
  await vi.advanceTimersByTimeAsync(1000)
  expect(walk.outFor.value).toBeCloseTo(61, 1)
})

test('keys that have swapped in their place are deaf for half a second', async () => {
  const walk = walking()
  await vi.advanceTimersByTimeAsync(0)
  await walk.press('stopped')
  await walk.press('moving')
  expect(pressed).toEqual(['stopped'])
  expect(walk.swapped.value).toBe(true)
  await vi.advanceTimersByTimeAsync(750)
  expect(walk.swapped.value).toBe(false)
  await walk.press('moving')
  expect(pressed).toEqual(['stopped', 'moving'])
})

test('at home what the outing counts as is logged once, where it counts at all', async () => {
  const walk = walking()
  await vi.advanceTimersByTimeAsync(0)
  await walk.home()
  expect(logged).toEqual([])
  await vi.advanceTimersByTimeAsync(750)
  told = { state: state({ phase: 'home' }), reps: [{ step: 'home.near' }] }
  await walk.home()
  expect(logged).toEqual([{ kind: 'rep', rep: { step: 'home.near' } }])
})

test('before anybody set off there is nothing to show', async () => {
  told = {}
  const walk = walking()
  await vi.advanceTimersByTimeAsync(1000)
  expect(walk.state.value).toBeUndefined()
  expect(walk.owed.value).toBe(0)
})
