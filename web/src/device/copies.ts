// The yard copy: answers of the server that are kept on this device, for when
// there is no signal. They are shown with the time they are from.
import { ref } from 'vue'
import type { Shelf } from './shelf'

/** The time that what is on show is from, where it is a copy; 0: it is not. */
export const shownFrom = ref(0)

let shelf: Shelf | undefined

/** Tells whose copies are kept and shown; nobody's while nobody is signed in. */
export function copiesOf(of: Shelf | undefined) {
  shelf = of
}

/** What is read again and again on a yard; not pictures, and not what keeps
 * itself with the taps that are not sent yet. */
const worthKeeping = /^\/api\/(?!me$|photographs\/|sessions\/[^/]+$|cases\/[^/]+\/assessment$)/
const most = 600

const pathOf = (url: string) => {
  const { pathname, search } = new URL(url)
  return pathname + search
}

export async function keepCopy(url: string, response: Response) {
  const path = pathOf(url)
  if (!shelf || !response.ok || !worthKeeping.test(path)) return
  const body = await response.clone().text()
  await shelf.copies.put({ path, at: Date.now(), body })
  const many = (await shelf.copies.count()) - most
  if (many > 0) await shelf.copies.orderBy('at').limit(many).delete()
}

/** The kept answer to a request, or undefined. */
export async function copyOf(url: string): Promise<Response | undefined> {
  const kept = await shelf?.copies.get(pathOf(url))
  if (!kept) return undefined
  shownFrom.value = shownFrom.value ? Math.min(shownFrom.value, kept.at) : kept.at
  return new Response(kept.body, { headers: { 'Content-Type': 'application/json' } })
}
