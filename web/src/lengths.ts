// Lengths are kept in metres and millimetres; they are said and typed in what the
// practice says.
import { me } from './api/me'

const foot = 0.3048
const hand = 101.6 // mm: four inches

const inFeet = () => me.value?.words.units === 'feet'

/** What a length is typed in, short and whole. */
export const unit = () => (inFeet() ? 'ft' : 'm')
export const units = () => (inFeet() ? 'feet' : 'metres')

/** So many metres in the practice's unit, and back; to a thousandth. */
export const toUnit = (metres: number) => Math.round((inFeet() ? metres / foot : metres) * 1000) / 1000
export const fromUnit = (n: number) => (inFeet() ? n * foot : n)

/** A length as one says it: whole metres from ten on; of feet the half ones under ten,
 * whole ones under fifty, then each fifth. */
export function distance(metres: number): string {
  const n = toUnit(metres)
  const step = inFeet() ? (n >= 50 ? 5 : n >= 10 ? 1 : 0.5) : n >= 10 ? 1 : 0.01
  return `${Number((Math.round(n / step) * step).toFixed(2))} ${unit()}`
}

/** A horse's height in hands, as one writes it: 14.2 is fourteen hands and two inches. */
export function hands(mm: number): number {
  const inches = Math.round((mm / hand) * 4)
  return Math.floor(inches / 4) + (inches % 4) / 10
}

/** Hands as they are written, in millimetres. */
export const ofHands = (written: number) => Math.round((Math.floor(written) + Math.round((written % 1) * 10) / 4) * hand)

/** A horse's height is typed in hands by who thinks in feet, else in centimetres. */
export const height = {
  unit: () => (inFeet() ? 'hands' : 'cm'),
  typed: (mm: number) => (inFeet() ? hands(mm) : mm / 10),
  kept: (typed: number) => (inFeet() ? ofHands(typed) : Math.round(typed * 10)),
  said: (mm: number) => `${height.typed(mm)} ${height.unit()}`,
  /** The same in the other unit. */
  beside: (mm: number) => (inFeet() ? `${Math.round(mm / 10)} cm` : `${hands(mm)} hands`),
}

/** What is narrow is typed in inches, else in centimetres. */
export const width = {
  unit: () => (inFeet() ? 'inches' : 'cm'),
  typed: (mm: number) => (inFeet() ? Math.round(mm / 2.54) / 10 : mm / 10),
  kept: (typed: number) => Math.round(typed * (inFeet() ? 25.4 : 10)),
}
