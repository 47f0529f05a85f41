// The last line of a page, and what a page shows while its data is not there.
import { flushPromises, mount } from '@vue/test-utils'
import { expect, test } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { Trouble } from '../api/client'
import { useLoad } from '../api/use'
import OneTap from './OneTap.vue'
import PageState from './PageState.vue'

async function line(at: string) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:any(.*)', component: { template: '<p />' } }],
  })
  await router.push(at)
  const leaves = [
    { key: 'steps', name: 'all steps' },
    { key: 'numbers', name: 'the numbers' },
  ]
  return {
    router,
    w: mount(OneTap, { props: { leaves, front: 'the plan' }, global: { plugins: [router] } }),
  }
}

test('the front names its leaves, and has no way back to itself', async () => {
  const { w } = await line('/plan')
  expect(w.findAll('li').map((l) => l.text())).toEqual(['all steps', 'the numbers'])
  expect(w.find('[aria-current=page]').exists()).toBe(false)
})

test('an open leaf is marked, and going back is one tap', async () => {
  const { w, router } = await line('/plan?see=numbers')
  expect(w.findAll('li').map((l) => l.text())).toEqual(['back to the plan', 'all steps', 'the numbers'])
  expect(w.get('[aria-current=page]').text()).toBe('the numbers')
  await w.get('a').trigger('click')
  await flushPromises()
  expect(router.currentRoute.value.query.see).toBeUndefined()
})

test('a page that is not there keeps its place, and one that failed says what stays', async () => {
  const wait = mount(PageState, { props: { ready: false }, slots: { default: 'the page' } })
  expect(wait.text()).toBe('Looking it up')
  const failed = mount(PageState, {
    props: { ready: true, at: Date.UTC(2026, 10, 27, 12), trouble: new Trouble(0, 'The server does not answer.') },
    slots: { default: 'the page' },
  })
  expect(failed.get('[role=alert]').text()).toMatch(/^The server does not answer\. What you see was read at \d\d:\d\d\./)
  expect(failed.text()).toContain('the page')
  await failed.get('button').trigger('click')
  expect(failed.emitted('again')).toHaveLength(1)
})

test('what was read stays, with its time, when it can not be read again', async () => {
  let fails = false
  const { data, trouble, at, load } = useLoad(() => (fails ? Promise.reject(new Trouble(0, 'gone')) : Promise.resolve('plan')))
  await flushPromises()
  const first = at.value
  expect(data.value).toBe('plan')
  expect(first).toBeGreaterThan(0)
  fails = true
  await load()
  expect(trouble.value?.message).toBe('gone')
  expect(data.value).toBe('plan')
  expect(at.value).toBe(first)
})
