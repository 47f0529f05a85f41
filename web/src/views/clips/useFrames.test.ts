import { expect, test } from 'vitest'
import { frameAt, within } from './useFrames'

test.each([24, 25, 30, 50, 60, 120, 240])('each frame of %i a second is found again at its moment', (fps) => {
  const frames = Array.from({ length: fps * 3 }, (_, i) => i / fps)
  for (let i = 0; i < frames.length; i++) {
    expect(frameAt(frames, frames[i] ?? 0)).toBe(i)
    expect(frameAt(frames, within(frames, i))).toBe(i)
  }
})

test('frames of unequal length, and moments before the first and after the last', () => {
  const frames = [0.1, 0.2, 0.5, 0.51]
  expect(frameAt(frames, 0)).toBe(0)
  expect(frameAt(frames, 0.49)).toBe(1)
  expect(frameAt(frames, 0.5)).toBe(2)
  expect(frameAt(frames, 9)).toBe(3)
  expect(within(frames, 2)).toBeCloseTo(0.505)
  expect(within(frames, 3)).toBeCloseTo(0.515)
  expect(frameAt([], 3)).toBe(0)
})
