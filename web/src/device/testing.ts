// What tests stand on: a database in memory, and a server of their own making.
import 'fake-indexeddb/auto'

export type Server = (request: Request) => Promise<Response> | Response

let server: Server = () => {
  throw new TypeError('no signal')
}

/** The server that answers from here on. */
export function answers(next: Server) {
  server = next
}

export const noSignal: Server = () => {
  throw new TypeError('no signal')
}

export const json = (body: unknown, status = 200) =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })

globalThis.fetch = async (input, init) => server(input instanceof Request ? input : new Request(input, init))

/** Waits until something holds; it is looked at again and again. */
export async function until(holds: () => boolean | Promise<boolean>) {
  for (let n = 0; n < 500; n++) {
    if (await holds()) return
    await new Promise((done) => setTimeout(done, 5))
  }
  throw new Error('it never came to hold')
}
