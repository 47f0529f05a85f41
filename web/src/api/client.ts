// The one way to the server. Every call answers with data or throws a Trouble:
// a sentence for people, and one for each field that is wrong.
import createClient from 'openapi-fetch'
import { copyOf, keepCopy } from '../device/copies'
import type { Paths, Schemas } from './types'

export class Trouble extends Error {
  constructor(
    public status: number,
    detail: string,
    public fields: Record<string, string> = {},
    public current?: unknown,
  ) {
    super(detail)
  }

  /** What is wrong beyond the fields that a form shows itself. */
  beyond(shown: string[]): string[] {
    return Object.entries(this.fields)
      .filter(([field]) => !shown.includes(field))
      .map(([, say]) => say)
  }
}

/** Hears that the sign-in of this device was ended; done once nothing is kept of it. */
let ended: () => Promise<void> = () => Promise.resolve()

export function onEnded(hear: () => Promise<void>) {
  ended = hear
}

/** Asks the server. A sign-in that was ended from elsewhere, and did not just run
 * out, takes along what was kept for its user. */
async function heard(request: Request, init?: RequestInit): Promise<Response> {
  const response = await fetch(request, init)
  if (response.status === 401) {
    const problem = (await response
      .clone()
      .json()
      .catch(() => ({}))) as Partial<Schemas['Problem']>
    if (problem.ended) await ended()
  }
  return response
}

/** Asks for a new sign-in over the page; true once somebody is signed in. */
let signInAgain: () => Promise<boolean> = () => Promise.resolve(false)

export function onSignedOut(ask: () => Promise<boolean>) {
  signInAgain = ask
}

/** Reads; without a signal, the copy that is kept here. A signal too weak to
 * answer is none. */
async function read(request: Request): Promise<Response> {
  try {
    const response = await heard(request, { signal: AbortSignal.timeout(weak) })
    if (noServer(response)) throw new TypeError('the server does not answer')
    void keepCopy(request.url, response)
    return response
  } catch (error) {
    const kept = await copyOf(request.url)
    if (kept) return kept
    throw error
  }
}

const weak = 12_000

/** A proxy answered that the server does not. What is wrong with the server itself
 * it says in its own form. */
export const noServer = ({ status, headers }: Response) =>
  status >= 502 && status <= 504 && !headers.get('Content-Type')?.startsWith('application/problem+json')

async function patient(request: Request): Promise<Response> {
  const again = request.clone()
  const response = await (request.method === 'GET' ? read(request) : heard(request))
  const path = new URL(request.url).pathname
  if (response.status !== 401 || path.startsWith('/api/sign-in')) return response
  return (await signInAgain()) ? fetch(again) : response
}

/** For what a person waits for: a run-out sign-in is asked for again. */
export const api = createClient<Paths>({ fetch: patient })

/** For what is sent in the background: never opens anything over the page. */
export const background = createClient<Paths>({ fetch: heard })

/** For what is read in the background, to be kept. */
export const ahead = createClient<Paths>({ fetch: read })

interface Answer<T> {
  data?: T
  error?: Partial<Schemas['Problem']>
  response: Response
}

export async function told<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>
  try {
    answer = await asked
  } catch {
    throw new Trouble(0, 'The server does not answer: no signal, or it is stopped. What you typed stays. Try again.')
  }
  if (answer.error === undefined && answer.response.ok) return answer.data as T
  const p = answer.error ?? {}
  const fields = Object.fromEntries((p.errors ?? []).map((e) => [e.field, e.say]))
  throw new Trouble(answer.response.status, p.detail ?? 'Something went wrong. Try again.', fields, p.current)
}
