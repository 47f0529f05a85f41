// Where two versions of a document differ, leaf by leaf, for people.
import type { Difference } from './StaleNote.vue'

function leaves(value: unknown, path: string, into: Map<string, string>) {
  if (value === undefined || value === null || value === '' || value === false) return
  if (Array.isArray(value)) {
    if (value.every((v) => typeof v !== 'object')) into.set(path, value.join(', '))
    else value.forEach((v, i) => leaves(v, `${path} ${i + 1}`, into))
    return
  }
  if (typeof value === 'object') {
    for (const [key, v] of Object.entries(value))
      leaves(v, path ? `${path}, ${key.replaceAll('_', ' ')}` : key.replaceAll('_', ' '), into)
    return
  }
  into.set(path, value === true ? 'yes' : String(value))
}

export function differences(mine: unknown, theirs: unknown): Difference[] {
  const a = new Map<string, string>()
  const b = new Map<string, string>()
  leaves(mine, '', a)
  leaves(theirs, '', b)
  return [...new Set([...a.keys(), ...b.keys()])]
    .map((name) => ({ name, mine: a.get(name) ?? '', theirs: b.get(name) ?? '' }))
    .filter((d) => d.mine !== d.theirs)
}
