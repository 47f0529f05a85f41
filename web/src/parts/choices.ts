/** Words as chips that say themselves. */
export const choices = <T extends string>(words: readonly T[]) => words.map((word) => ({ value: word, text: word }))
