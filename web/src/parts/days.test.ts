import { expect, test } from 'vitest'
import { driven, later, monday, spanOf } from './days'

test('days are counted over months and changes of the clocks', () => {
  expect(later('2026-03-28', 2)).toBe('2026-03-30')
  expect(later('2026-10-24', 1)).toBe('2026-10-25')
  expect(later('2027-01-01', -1)).toBe('2026-12-31')
  expect(monday('2026-11-29')).toBe('2026-11-23')
  expect(monday('2026-11-23')).toBe('2026-11-23')
})

test('a week and a drive are told in words', () => {
  expect(spanOf('2026-11-23')).toBe('23 to 29 November')
  expect(spanOf('2026-11-30')).toBe('30 November to 6 December')
  expect(driven(52)).toBe('52\u00a0min')
  expect(driven(103)).toBe('1\u00a0h\u00a043')
})
