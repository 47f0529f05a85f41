import { expect, test } from 'vitest'
import { along, ticks } from './timeLine'

test('days stand along the line in their order, and none beyond its ends', () => {
  const x = along('2026-11-27', '2027-01-08', 270)
  expect(x('2026-11-27')).toBe(9)
  expect(x('2027-01-08')).toBe(261)
  expect(x('2026-12-18')).toBe(135)
  expect(x('2028-01-01')).toBe(261)
  expect(x('2026-01-01')).toBe(9)
})

test('a line of one day has a length', () => {
  expect(along('2026-11-27', '2026-11-27', 270)('2026-11-27')).toBe(9)
})

test('days under the line are between its ends, evenly', () => {
  expect(ticks('2026-11-27', '2026-12-27', 2)).toEqual(['2026-12-07', '2026-12-17'])
})
