import { readdirSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { guideOf } from './guide'
import { places } from './places'

const pages = readdirSync('../docs/guide').map((name) => name.replace('.md', ''))

describe('the guide', () => {
  it.each([
    ['/horses', '2-horses'],
    ['/horses/1', '2-horses'],
    ['/horses/1/assessment', '3-assessment'],
    ['/horses/1/assess/2', '3-assessment'],
    ['/horses/1/clips', '9-clips'],
    ['/clips/1', '9-clips'],
    ['/arena', '5-arena'],
    ['/arena/1/after', '6-reports'],
    ['/nowhere', 'README'],
  ])('has a page for %s', (path, page) => {
    expect(guideOf(path)).toBe(`/guide/${page}`)
    expect(pages).toContain(page)
  })

  it('has a page of its own for every place', () => {
    const all = places.map((p) => guideOf(p.to).replace('/guide/', ''))
    expect(new Set(all).size).toBe(places.length)
    for (const page of all) expect(pages).toContain(page)
  })
})
