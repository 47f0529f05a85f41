// The assessment as a tree of what was noted. Taps are put in their places
// here at once; what follows from them is the server's alone.

type Tree = Record<string, unknown>

/** What stands at a place, as in "problems/loading/story/began". */
export function at(doc: unknown, path: string): unknown {
  let here = doc
  for (const key of path.split('/')) {
    if (typeof here !== 'object' || here === null) return undefined
    here = (here as Tree)[key]
  }
  return here
}

/** A copy with a value put in its place; null takes it out. */
export function put(doc: Tree, path: string, value: unknown): Tree {
  const [key = '', ...rest] = path.split('/')
  const { [key]: here, ...others } = doc
  if (rest.length > 0) return { ...others, [key]: put((here as Tree | undefined) ?? {}, rest.join('/'), value) }
  return value === null ? others : { ...others, [key]: value }
}
