// What drawings make of the numbers they are given: nothing of their own.
import { mount } from '@vue/test-utils'
import { expect, test } from 'vitest'
import type { Schemas } from '../api/types'
import BridgeStrip from './BridgeStrip.vue'
import CauseTrestle from './CauseTrestle.vue'
import GateDrawing from './GateDrawing.vue'
import KnotShape from './KnotShape.vue'
import PierShape from './PierShape.vue'
import RopeSpan from './RopeSpan.vue'

type Cause = Schemas['AssessCause']

const evidence = (weight: number, source = 'seen', finding = `f${weight}${source}`) =>
  ({ finding, says: `finding ${weight}`, source, weight }) as Schemas['AssessEvidence']
const cause = (score: number | undefined, more: Partial<Cause> = {}): Cause => ({
  cause: 'fear',
  says: { key: 'cause.fear', text: 'fear' },
  belief: score === undefined ? 'not looked at' : 'possible',
  doubt: 2,
  for: [],
  against: [],
  ...(score === undefined ? {} : { score }),
  ...more,
})
const trestle = (c: Cause) => mount(CauseTrestle, { props: { cause: c, name: 'Fear' } })
const tilt = (c: Cause) => Number(/rotate\((-?[\d.]+)/.exec(trestle(c).html())?.[1])

test('a plank tips by the score alone: level at half, the more the surer', () => {
  expect(tilt(cause(0.5))).toBe(0)
  expect(tilt(cause(0.8))).toBeGreaterThan(tilt(cause(0.6)))
  expect(tilt(cause(0.2))).toBe(-tilt(cause(0.8)))
  expect(tilt(cause(0.8, { for: [evidence(2.6)] }))).toBe(tilt(cause(0.8)))
})

test('what nobody looked at is a dashed plank with nothing on it', () => {
  const html = trestle(cause(undefined)).html()
  expect(html).toContain('unseen')
  expect(html).not.toContain('doubt')
  expect(html).not.toContain('stone')
})

test('a stone is larger the more its finding tells, and lies on its side', () => {
  const w = trestle(cause(0.7, { for: [evidence(2.6), evidence(0.7)], against: [evidence(-1.4)] }))
  const stones = w.findAll('.stone')
  expect(stones).toHaveLength(3)
  const width = (i: number) => Number(/M-([\d.]+)/.exec(stones[i]?.attributes('d') ?? '')?.[1])
  expect(width(0)).toBeGreaterThan(width(1))
  expect(stones.map((s) => s.classes().includes('against'))).toEqual([false, false, true])
  const x = w.findAll('.pick').map((g) => Number(/translate\(([\d.]+)/.exec(g.attributes('transform') ?? '')?.[1]))
  expect(x[0]).toBeGreaterThan(80)
  expect(x[2]).toBeLessThan(80)
})

test('how it is known is the look of a stone, and a tap names its finding', async () => {
  const w = trestle(cause(0.7, { for: [evidence(1, 'video'), evidence(1, 'told'), evidence(1, 'on record')] }))
  expect(w.findAll('.stone').map((s) => s.classes()[1])).toEqual(['video', 'told', 'on-record'])
  await w.find('.pick').trigger('click')
  expect(w.emitted('stone')).toEqual([['f1video']])
  expect(w.find('title').text()).toBe('finding 1, video')
})

test('the text name of a trestle says for and against', () => {
  const name = trestle(cause(0.7, { for: [evidence(1)], against: [evidence(-0.7, 'told')] }))
    .find('svg')
    .attributes('aria-label')
  expect(name).toBe('Fear: possible. For it: finding 1, seen. Against it: finding -0.7, told.')
  expect(trestle(cause(0.3)).find('svg').attributes('aria-label')).toContain('For it: nothing.')
})

test('stones that have no room lie behind, and none hangs over the plank', () => {
  const many = Array.from({ length: 20 }, (_, i) => evidence(1, 'seen', `f${i}`))
  const w = trestle(cause(0.9, { for: many, against: many.map((e) => ({ ...e, weight: -1, finding: `a${e.finding}` })) }))
  for (const g of w.findAll('.pick')) {
    const x = Number(/translate\(([\d.]+)/.exec(g.attributes('transform') ?? '')?.[1])
    expect(x).toBeGreaterThan(0)
    expect(x).toBeLessThan(160)
  }
  expect(w.findAll('.pick').length).toBeLessThan(40)
})

test('a gate is tied, open or not looked at, and says so', () => {
  const gate = (state: string) => mount(GateDrawing, { props: { state } })
  expect(gate('tied').find('.tie').exists()).toBe(true)
  expect(gate('open').find('.tie').exists()).toBe(false)
  expect(gate('not looked at').classes()).toContain('is-not-looked-at')
  expect(gate('not looked at').attributes('aria-label')).toBe('The gate is not looked at')
})

test('a rope has some length though its days are one', () => {
  const d = mount(RopeSpan, { props: { from: 10, to: 10, ring: 10, y: 5 } })
    .find('.rope')
    .attributes('d')
  expect(d).toBe('M10 5H14')
})

test('a knot is through only where it is tied', () => {
  const knot = (state: 'tied' | 'open' | 'dashed') => mount(KnotShape, { props: { state } })
  expect(knot('tied').find('.through').exists()).toBe(true)
  expect(knot('open').find('.through').exists()).toBe(false)
  expect(knot('dashed').classes()).toContain('dashed')
})

const plank = (step: string, state: string, more = {}) =>
  ({ step, name: step, state, says: { key: 's', text: state }, parts: [{ state }], ...more }) as Schemas['ProgressPlank']

test('the half of a pier that is missing is dashed, the other stands; of a method none is missing', () => {
  const at = {
    plank: plank('past', 'tried'),
    x: 50,
    y: 20,
    angle: 0,
    width: 30,
    pieces: [
      { x: 0, width: 0.47, state: 'met' },
      { x: 0.53, width: 0.47, state: 'untried' },
    ],
  }
  const pier = mount(PierShape, { props: { at } })
  expect(pier.findAll('.pier').map((p) => p.classes().includes('missing'))).toEqual([false, true])
  expect(mount(PierShape, { props: { at, method: true } }).findAll('.missing')).toHaveLength(0)
})

test('planks of a strip have one size, the flag stands at the goal, and what lies beyond is pale', () => {
  const strip = (n: number, goal: number) =>
    mount(BridgeStrip, {
      props: {
        bridge: {
          ladder: 'load',
          name: 'trailer loading',
          planks: Array.from({ length: n }, (_, i) => plank(`${i}`, 'met', { beyond: i > goal })),
          piers: [],
          steps: goal + 1,
          sources: [],
          progress: 0,
          blocked: 0,
          met: 0,
        },
      },
    })
  const size = (n: number) =>
    strip(n, n - 1)
      .find('rect')
      .attributes('width')
  expect(size(3)).toBe(size(13))
  expect(Number(strip(13, 12).attributes('width'))).toBeGreaterThan(Number(strip(3, 2).attributes('width')))
  const w = strip(6, 3)
  expect(w.findAll('.pale')).toHaveLength(2)
  expect(w.find('.pole').attributes('d')).toMatch(/^M60 /)
  expect(w.attributes('aria-label')).toContain('trailer loading. 0: met')
})
