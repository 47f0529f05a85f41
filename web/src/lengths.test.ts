import { afterEach, describe, expect, it } from 'vitest'
import { me, type Me } from './api/me'
import { distance, fromUnit, hands, height, ofHands, toUnit, width } from './lengths'

const speaks = (units: string) => (me.value = { words: { units } } as unknown as Me)

afterEach(() => (me.value = undefined))

describe('lengths', () => {
  it('says metres where nothing is chosen', () => {
    expect(distance(1.5)).toBe('1.5 m')
    expect(distance(9.996)).toBe('10 m')
    expect(distance(380.4)).toBe('380 m')
  })

  // The same as the sentences of the rules say: core/phrase has this table too.
  it.each([
    [0.5, '1.5 ft'],
    [1, '3.5 ft'],
    [1.5, '5 ft'],
    [3, '10 ft'],
    [3.05, '10 ft'],
    [6, '20 ft'],
    [15.2, '50 ft'],
    [80, '260 ft'],
    [305, '1000 ft'],
  ])('says %d m in feet', (metres, said) => {
    speaks('feet')
    expect(distance(metres)).toBe(said)
  })

  it('gives back each whole millimetre that was typed in feet', () => {
    speaks('feet')
    for (let mm = 1; mm < 30_000; mm += 7) expect(Math.round(fromUnit(toUnit(mm / 1000)) * 1000)).toBe(mm)
  })

  it('reads hands as they are written', () => {
    expect(hands(1473)).toBe(14.2)
    expect(hands(1524)).toBe(15)
    for (let inches = 20; inches < 88; inches++) {
      const written = Math.floor(inches / 4) + (inches % 4) / 10
      expect(hands(ofHands(written))).toBeCloseTo(written, 9)
    }
  })

  it('has heights and widths typed in what the practice says', () => {
    expect([height.said(1520), height.beside(1520), height.kept(152), width.kept(80.5)]).toEqual([
      '152 cm',
      '15 hands',
      1520,
      805,
    ])
    speaks('feet')
    expect([height.said(1473), height.beside(1473), height.kept(14.2)]).toEqual(['14.2 hands', '147 cm', 1473])
    expect([width.kept(32), width.typed(813), width.unit()]).toEqual([813, 32, 'inches'])
  })
})
