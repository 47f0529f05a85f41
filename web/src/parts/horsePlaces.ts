// Where things lie on the drawn horse, seen from the near side: the same places
// wherever a horse is touched, by hand, by a tool, or as a part of the body.

export const picture = { width: 560, height: 420 }

type Spot = readonly [x: number, y: number]

/** The places of the body, by their word. */
export const places: Record<string, Spot> = {
  ears: [153, 34],
  poll: [176, 52],
  face: [118, 96],
  eyes: [133, 78],
  mouth: [92, 140],
  neck: [196, 106],
  shoulder: [246, 164],
  withers: [278, 124],
  back: [350, 136],
  girth: [284, 226],
  belly: [348, 240],
  flank: [412, 206],
  hip: [448, 138],
  tail: [510, 214],
  foreleg: [264, 300],
  'hind leg': [482, 272],
  feet: [266, 386],
}

/** Where the body items lie; weight, balance and the whole skin have no place of their own. */
export const itemPlaces: Record<string, Spot | undefined> = {
  mouth: places.mouth,
  eyes: places.eyes,
  back: places.back,
  'saddle fit': places.withers,
  belly: places.girth,
  skin: places.shoulder,
  'feet legs': places.feet,
  'hind leg': places['hind leg'],
}

/** The five zones from nose to tail, as areas (handbook part 2). */
export const zones: Record<string, Spot[]> = {
  'zone 1': [
    [4, 4],
    [78, 4],
    [78, 416],
    [4, 416],
  ],
  'zone 2': [
    [78, 4],
    [262, 4],
    [244, 104],
    [226, 150],
    [216, 200],
    [206, 416],
    [78, 416],
  ],
  'zone 3': [
    [262, 4],
    [430, 4],
    [424, 170],
    [418, 222],
    [384, 416],
    [206, 416],
    [216, 200],
    [226, 150],
    [244, 104],
  ],
  'zone 4': [
    [430, 4],
    [506, 4],
    [506, 416],
    [384, 416],
    [418, 222],
    [424, 170],
  ],
  'zone 5': [
    [506, 4],
    [556, 4],
    [556, 416],
    [506, 416],
  ],
}

/** A spot as it lies on a side of the horse. */
export const onSide = (side: 'near' | 'off', [x, y]: Spot): Spot => [side === 'near' ? x : picture.width - x, y]

export const area = (side: 'near' | 'off', spots: Spot[]) => spots.map((s) => onSide(side, s).join(',')).join(' ')

/** A touch further off than this is on no place. */
const reach = 70

/** The place nearest to a touch, so that a gloved finger need not hit a dot. */
export function nearest<T extends string>(spots: Record<T, Spot | undefined>, x: number, y: number): T | undefined {
  let best: T | undefined
  let least = reach
  for (const key of Object.keys(spots) as T[]) {
    const spot = spots[key]
    const far = spot ? Math.hypot(spot[0] - x, spot[1] - y) : reach
    if (far < least) [best, least] = [key, far]
  }
  return best
}
