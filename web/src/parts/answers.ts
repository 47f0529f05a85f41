// The five answers with their keys, by position on the keyboard.
export const answers = [
  { answer: 'refused', says: 'no change, worse', code: 'KeyQ', key: 'Q' },
  { answer: 'try', says: 'a thought', code: 'KeyW', key: 'W' },
  { answer: 'tolerated', says: 'did it, tense', code: 'KeyE', key: 'E' },
  { answer: 'accepted', says: 'did it, soft', code: 'KeyR', key: 'R' },
  { answer: 'offered', says: 'before I asked', code: 'KeyT', key: 'T' },
] as const

export type AnswerWord = (typeof answers)[number]['answer']
