import { mount } from '@vue/test-utils'
import { beforeEach, expect, test } from 'vitest'
import { defineComponent, h } from 'vue'
import { allKeys, keysAreOn, pressed, useKeys } from './keys'

let did: string[] = []
const named = (says: string, ...keys: string[]) =>
  defineComponent({
    setup() {
      useKeys(keys.map((press) => ({ press, does: press, run: () => did.push(says || press) })))
      return () => h('input')
    },
  })
const page = (...keys: string[]) => named('', ...keys)
const press = (key: string, more: KeyboardEventInit = {}) => pressed(new KeyboardEvent('keydown', { key, ...more }))

beforeEach(() => {
  did = []
  keysAreOn.value = true
})

test('keys mean something while their page is shown, one after another too', () => {
  const w = mount(page('j', 'gh', '?'))
  expect(press('j')).toBe(true)
  expect(press('h')).toBe(false)
  expect(press('g')).toBe(false)
  expect(press('h')).toBe(true)
  press('g')
  press('j')
  expect(did).toEqual(['j', 'gh', 'j'])
  w.unmount()
  expect(allKeys.value).toEqual([])
  expect(press('j')).toBe(false)
})

test('a key held with another, or said into a field, is not taken', () => {
  const w = mount(page('j'), { attachTo: document.body })
  expect(press('j', { ctrlKey: true })).toBe(false)
  w.find('input').element.focus()
  expect(press('j')).toBe(false)
  w.unmount()
})

test('keys that are put off rest, but for the one that shows them', () => {
  const w = mount(page('j', '?'))
  keysAreOn.value = false
  expect(press('j')).toBe(false)
  expect(press('?')).toBe(true)
  w.unmount()
})

test('the page on top has the say', () => {
  const below = mount(page('v'))
  const above = mount(named('mine', 'v'))
  press('v')
  above.unmount()
  press('v')
  below.unmount()
  expect(did).toEqual(['mine', 'v'])
})
