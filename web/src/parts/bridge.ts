// Where the parts of a drawn bridge stand: an arch of planks between two banks,
// piers under it. Lengths are pixels; only states and names come from outside.
import type { Schemas } from '../api/types'
import { pieces, type Piece } from './plank'

export type Plank = Schemas['ProgressPlank']
export type Bridge = Schemas['ProgressBridge']

export interface Standing {
  plank: Plank
  x: number
  y: number
  angle: number
  width: number
  pieces: Piece[]
}

export const height = 242
export const plankHeight = 22
const deck = { middle: 74, end: 120 }
export const water = 210

/** The banks: wider where few planks span the water, narrow where many have to. */
export const bankOf = (width: number, planks: number) =>
  Math.max(Math.min(120, width / 8, Math.max((width - planks * 60) / 2, 20)), (width - planks * 150) / 2)

/** The arch: highest in the middle. */
const arch = (x: number, width: number) => {
  const t = (2 * x) / width - 1
  return deck.middle + (deck.end - deck.middle) * t * t
}

const turn = (x: number, width: number) => ((arch(x + 4, width) - arch(x - 4, width)) / 8) * (180 / Math.PI)

const stands = (plank: Plank, x: number, y: number, angle: number, width: number): Standing => ({
  plank,
  x,
  y,
  angle,
  width,
  pieces: pieces(plank.parts, !!plank.blocked),
})

/** The planks of a whole bridge, from bank to bank. */
export function arched(bridge: Bridge, width: number): Standing[] {
  const bank = bankOf(width, bridge.planks.length)
  const pitch = (width - 2 * bank) / Math.max(bridge.planks.length, 1)
  return bridge.planks.map((p, i) => {
    const x = bank + pitch * (i + 0.5)
    return stands(p, x, arch(x, width), turn(x, width), pitch - 4)
  })
}

/** The piers under it: those of all planks evenly, each other one under the plank
 * that stands on it, in the place of the nearest. */
export function piers(bridge: Bridge, width: number, planks: Standing[]): Standing[] {
  const bank = bankOf(width, bridge.planks.length)
  const span = width - 2 * bank
  const apart = span / Math.max(bridge.piers.length, 1)
  const places = bridge.piers.map((_, i) => bank + apart * (i + 0.5))
  const free = new Set(places.keys())
  const list: { p: Plank; x: number }[] = []
  for (const p of bridge.piers.filter((o) => o.under)) {
    const x = planks.find((s) => s.plank.step === p.under)?.x ?? bank
    const nearest = [...free].sort((a, b) => Math.abs((places[a] ?? 0) - x) - Math.abs((places[b] ?? 0) - x))[0]
    if (nearest !== undefined) free.delete(nearest)
    list.push({ p, x })
  }
  const left = [...free]
  bridge.piers.filter((o) => !o.under).forEach((p, i) => list.push({ p, x: places[left[i] ?? i] ?? bank }))
  list.sort((a, b) => a.x - b.x)
  const least = Math.min(92, apart)
  for (let i = 1; i < list.length; i++) {
    const [before, one] = [list[i - 1], list[i]]
    if (before && one && one.x - before.x < least) one.x = before.x + least
  }
  return list.map(({ p, x }) => stands(p, x, arch(x, width) + plankHeight / 2 + 2, 0, Math.min(34, least - 8)))
}

/** Two planks before the one where the work is, that one, and two after: what a
 * phone shows of a bridge. */
export function nearby(bridge: Bridge): Plank[] {
  const planks = bridge.planks
  const goal = planks.findLastIndex((p) => !p.beyond)
  const next = planks.findIndex((p) => p.next)
  const first = planks.findIndex((p) => !p.beyond && p.state !== 'met' && p.state !== 'kept')
  const at = next >= 0 ? next : first >= 0 ? first : goal
  const from = Math.max(0, Math.min(at - 2, planks.length - 5))
  return planks.slice(from, from + 5)
}

/** A name in lines of so many letters; long words stay whole. */
export function lines(name: string, letters: number): string[] {
  if (name.length <= letters) return [name]
  const words = name.split(' ')
  if (words.length === 1) return [name]
  let cut = 1
  for (let i = 1; i < words.length; i++) {
    if (words.slice(0, i).join(' ').length <= name.length / 2 + 1) cut = i
  }
  return [words.slice(0, cut).join(' '), words.slice(cut).join(' ')]
}

export const stateOf = (p: Plank) => (p.blocked ? 'blocked' : p.state)

/** The planks under which their state is written: one of each run, the one that is
 * farthest from any pier. */
export function worded(planks: Standing[], under: Standing[]): Set<string> {
  const chosen = new Set<string>()
  let run: Standing[] = []
  const close = () => {
    const far = (s: Standing) => Math.min(...under.map((p) => Math.abs(p.x - s.x)), 999)
    const best = [...run].sort((a, b) => far(b) - far(a))[0]
    if (best) chosen.add(best.plank.step)
  }
  for (const s of planks.filter((p) => !p.plank.beyond)) {
    if (run[0] && stateOf(run[0].plank) !== stateOf(s.plank)) {
      close()
      run = []
    }
    run.push(s)
  }
  close()
  return chosen
}

export function said(p: Plank): string {
  const beyond = p.beyond ? 'beyond the goal, ' : ''
  return beyond + (p.blocked ? `blocked. ${p.blocked.text}` : p.says.text)
}
