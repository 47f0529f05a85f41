import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { defineComponent, nextTick } from 'vue'
import { useHold } from './hold'

/** A page with a hold on it. */
function page(key = 'hold-1') {
  let held: ReturnType<typeof useHold> | undefined
  const Page = defineComponent({
    setup() {
      held = useHold(key, () => Date.now())
      return () => null
    },
  })
  const wrapper = mount(Page)
  if (!held) throw new Error('no hold')
  return { ...held, gone: () => wrapper.unmount() }
}

beforeEach(() => {
  localStorage.clear()
  vi.useFakeTimers({ now: 1_000_000 })
})
afterEach(() => vi.useRealTimers())

test('a hold has its start, its peak, its first try and its seconds', () => {
  const { press, build, tried, take, hold } = page()
  press()
  vi.advanceTimersByTime(2000)
  build(4)
  vi.advanceTimersByTime(1500)
  tried()
  build(3)
  vi.advanceTimersByTime(500)
  tried()
  expect(take()).toMatchObject({
    start: 1,
    peak: 4,
    first: 4,
    to_try: 3.5,
    seconds: 4,
    tries: [{ at: 1_003_500 }, { at: 1_004_000 }],
  })
  expect(hold.on).toBe(false)
  expect(take()).toEqual({})
})

test('a page that is lost while the rope is held takes nothing of it', async () => {
  const before = page()
  before.press()
  vi.advanceTimersByTime(3000)
  before.build(5)
  before.tried()
  await nextTick()
  before.gone()
  vi.advanceTimersByTime(2000)
  const after = page()
  expect(after.hold.on).toBe(true)
  expect(after.hold.interrupted).toBe(true)
  expect(after.take()).toMatchObject({ peak: 5, to_try: 3, seconds: 5 })
  await nextTick()
  expect(page().hold.on).toBe(false)
})

test('a level tapped afterwards is a peak without a clock', () => {
  const { tap, take } = page()
  tap(6)
  tap(2)
  expect(take()).toEqual({ peak: 2 })
})
