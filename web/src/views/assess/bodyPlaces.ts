/** Where the body items lie on the near outline; balance and weight have no place. */
export const bodyPlaces: Record<string, [number, number] | undefined> = {
  mouth: [46, 116],
  eyes: [84, 66],
  back: [290, 126],
  'saddle fit': [226, 126],
  belly: [240, 196],
  skin: [196, 158],
  'feet legs': [206, 300],
  'hind leg': [376, 236],
}
