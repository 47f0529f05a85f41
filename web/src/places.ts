/** The places of the notebook, each with the letter that goes to it after g. */
export const places = [
  { to: '/day', name: 'Day', key: 'd' },
  { to: '/horses', name: 'Horses', key: 'h' },
  { to: '/arena', name: 'Arena', key: 'a' },
  { to: '/outings', name: 'Outings', key: 'o' },
  { to: '/diary', name: 'Diary', key: 'w' },
  { to: '/methods', name: 'Methods', key: 'm' },
  { to: '/people', name: 'People', key: 'p' },
]
