/** What is left of a record without one of its keys; nothing where none is left. */
export function without<T>(record: Record<string, T> | undefined, key: string): Record<string, T> | undefined {
  const left = Object.entries(record ?? {}).filter(([k]) => k !== key)
  return left.length ? Object.fromEntries(left) : undefined
}
