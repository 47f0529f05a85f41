import { beforeEach, expect, test } from 'vitest'
import { nextTick, ref } from 'vue'
import { useKit } from './useKit'

beforeEach(() => localStorage.clear())

test('what is ticked stays on this device for its day, and goes when the day is over', async () => {
  const on = ref('2026-11-27')
  const kit = useKit(() => on.value, '2026-11-27')
  kit.tick('vest')
  kit.tick('gloves')
  kit.tick('gloves')
  expect(kit.ticked.value).toEqual(['vest'])
  on.value = '2026-11-28'
  await nextTick()
  expect(kit.has('vest')).toBe(false)
  expect(useKit(() => '2026-11-27', '2026-11-27').has('vest')).toBe(true)
  expect(useKit(() => '2026-11-27', '2026-11-28').has('vest')).toBe(true)
  expect(useKit(() => '2026-11-27', '2026-11-28').has('vest')).toBe(false)
})

test('what is kept and can not be read is nothing', () => {
  localStorage.setItem('ivory-kit-2026-11-27', '{broken')
  expect(useKit(() => '2026-11-27', '2026-11-27').ticked.value).toEqual([])
})
