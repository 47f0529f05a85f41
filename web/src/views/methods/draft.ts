// An own ladder while it is edited: texts as they are typed.
import type { Schemas } from '../../api/types'
import { fromUnit, toUnit } from '../../lengths'
import type { Own, Step } from './handbook'

export interface StepDraft {
  key: string
  name: string
  ask: string
  plain: string
  release: string
  watch: string
  measures: string[]
  run?: number
  level?: number
  values: string
  unit: string
  corrections?: number
  and: string
  needs: string[]
  kit: string
  ridden: boolean
  sides: boolean
  link: string
}

export interface Draft {
  name: string
  where: string
  watch: string
  reason: string
  standsOn: string[]
  steps: StepDraft[]
}

const list = (text: string) =>
  text
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)

const stepDraft = (s: Step): StepDraft => ({
  key: s.key,
  name: s.name,
  ask: s.ask,
  plain: s.plain,
  release: s.release ?? '',
  watch: s.watch ?? '',
  measures: [...(s.measures ?? [])],
  run: s.pass.run,
  level: s.pass.level,
  values: (s.pass.values ?? []).map((v) => (s.pass.unit === 'mm' ? toUnit(v / 1000) : v)).join(', '),
  unit: s.pass.unit ?? '',
  corrections: s.pass.corrections,
  and: s.pass.and ?? '',
  needs: (s.needs ?? []).map((n) => n.step),
  kit: (s.kit ?? []).join(', '),
  ridden: s.ridden ?? false,
  sides: (s.variants ?? []).length > 0,
  link: s.link ?? '',
})

export const draftOf = (o: Own): Draft => ({
  name: o.name,
  where: o.doc.where,
  watch: o.doc.watch ?? '',
  reason: '',
  standsOn: (o.doc.stands_on ?? []).map((n) => n.step),
  steps: o.doc.steps.map(stepDraft),
})

/** A new step, with a key of its own. */
export function fresh(ladder: string, steps: StepDraft[]): StepDraft {
  let n = 1
  while (steps.some((s) => s.key === `${ladder}.own${n}`)) n++
  return {
    key: `${ladder}.own${n}`,
    name: '',
    ask: '',
    plain: '',
    release: '',
    watch: '',
    measures: ['answer'],
    run: 3,
    level: 3,
    values: '',
    unit: '',
    and: '',
    needs: [],
    kit: '',
    ridden: false,
    sides: false,
    link: '',
  }
}

/** What one horse was asked, as a step: it keeps its key, and so its history. */
export const asStep = (o: Schemas['OwnAsk']): StepDraft => ({
  ...fresh('', []),
  key: o.ask.key,
  name: o.ask.name.slice(0, 40),
  ask: o.ask.name,
  plain: o.ask.name,
  measures: [o.ask.holds ? 'hold' : 'answer'],
  values: o.ask.holds ? String(o.ask.holds) : '',
  unit: o.ask.holds ? 's' : '',
  sides: o.ask.sides ?? false,
})

export const textOf = (d: Draft, version: number): Schemas['LadderText'] => ({
  version,
  name: d.name,
  reason: d.reason,
  where: d.where,
  watch: d.watch,
  stands_on: d.standsOn,
  steps: d.steps.map((s) => ({
    key: s.key,
    name: s.name,
    ask: s.ask,
    plain: s.plain,
    release: s.release,
    watch: s.watch,
    measures: s.measures,
    run: Math.round(s.run ?? 0),
    level: Math.round(s.level ?? 0),
    values: list(s.values).map((v) => Math.round(s.unit === 'mm' ? fromUnit(Number(v)) * 1000 : Number(v)) || 0),
    unit: s.unit,
    corrections: s.corrections === undefined ? undefined : Math.round(s.corrections),
    and: s.and,
    needs: s.needs,
    kit: list(s.kit),
    ridden: s.ridden,
    sides: s.sides || undefined,
  })),
})

const says = (s: StepDraft) =>
  [s.name, s.ask, s.release, s.watch, `${s.run} in a row at ${s.level}`, s.values, s.needs.join(', ')].join(' / ')

/** What two drafts have otherwise, step by step. */
export function differences(mine: Draft, theirs: Draft) {
  const rows = [
    { name: 'Name', mine: mine.name, theirs: theirs.name },
    { name: 'Where', mine: mine.where, theirs: theirs.where },
    { name: 'Watch', mine: mine.watch, theirs: theirs.watch },
    { name: 'Stands on', mine: mine.standsOn.join(', '), theirs: theirs.standsOn.join(', ') },
  ]
  for (const key of new Set([...mine.steps, ...theirs.steps].map((s) => s.key))) {
    const a = mine.steps.find((s) => s.key === key)
    const b = theirs.steps.find((s) => s.key === key)
    rows.push({ name: key, mine: a ? says(a) : '', theirs: b ? says(b) : '' })
  }
  return rows.filter((r) => r.mine !== r.theirs)
}
