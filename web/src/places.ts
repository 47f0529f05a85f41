/** The places of the notebook, each with the letter that goes to it after g. In the hand those that
 * are opened at a desk stand behind More. */
export const places = [
  { to: '/day', name: 'Day', key: 'd', desk: false },
  { to: '/horses', name: 'Horses', key: 'h', desk: false },
  { to: '/arena', name: 'Arena', key: 'a', desk: false },
  { to: '/outings', name: 'Outings', key: 'o', desk: false },
  { to: '/diary', name: 'Diary', key: 'w', desk: false },
  { to: '/methods', name: 'Methods', key: 'm', desk: true },
  { to: '/people', name: 'People', key: 'p', desk: true },
  { to: '/house', name: 'House rules', key: 'r', desk: true },
]
