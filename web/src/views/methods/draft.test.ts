import { afterEach, describe, expect, it } from 'vitest'
import { me, type Me } from '../../api/me'
import { draftOf, textOf } from './draft'
import type { Own } from './handbook'

const own = (unit: string, values: number[]) =>
  ({
    name: 'Past the bin',
    doc: { where: '', steps: [{ key: 'bin.own1', name: 'near', ask: '', plain: '', pass: { run: 3, level: 2, unit, values } }] },
  }) as unknown as Own

afterEach(() => (me.value = undefined))

describe('the lengths of an own ladder', () => {
  it.each(['metres', 'feet'])('are typed in %s and stay what they were', (units) => {
    me.value = { words: { units } } as unknown as Me
    const lengths = [4000, 3000, 1500, 500]
    const draft = draftOf(own('mm', lengths))
    expect(draft.steps[0]?.values).toBe(units === 'feet' ? '13.123, 9.843, 4.921, 1.64' : '4, 3, 1.5, 0.5')
    expect(textOf(draft, 1).steps?.[0]?.values).toEqual(lengths)
  })

  it('leave counts and seconds as they are', () => {
    me.value = { words: { units: 'feet' } } as unknown as Me
    const draft = draftOf(own('feet', [1, 2, 4]))
    expect(draft.steps[0]?.values).toBe('1, 2, 4')
    expect(textOf(draft, 1).steps?.[0]?.values).toEqual([1, 2, 4])
  })
})
