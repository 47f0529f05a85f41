// Asks the server with the token of the private link. It stands behind # in the
// address, so that it reaches the server only here.
import createClient from 'openapi-fetch'
import type { paths } from '../api/schema'
import type { Schemas } from '../api/types'

export type Pages = Schemas['Pages']
export type HorsePage = Schemas['HorsePage']
export type Log = Schemas['HomeworkLog'] & { name?: string }

export const tokenOf = (hash: string) => hash.replace(/^#/, '')

/** What came of asking: an answer, a refusal in words, or nobody there. */
export type Answer<T> = { got: T } | { refused: string; gone: boolean } | { away: true }

async function asked<T>(ask: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<Answer<T>> {
  try {
    const { data, error, response } = await ask
    if (response.ok) return { got: data as T }
    if (response.status >= 500 || response.status === 429 || response.status === 408) return { away: true }
    const said = (error as { detail?: string } | undefined)?.detail
    return { refused: said ?? 'This could not be kept. Ring your trainer.', gone: response.status === 404 }
  } catch {
    return { away: true }
  }
}

const client = (token: string) =>
  createClient<paths>({ baseUrl: location.origin, headers: token ? { Authorization: `Bearer ${token}` } : {} })

export const signOut = async () => 'got' in (await asked(client('').POST('/api/sign-out')))

export const pages = (token: string) => asked<Pages>(client(token).GET('/api/owner'))

export const practise = (token: string, horse: string, logs: Log[]) =>
  asked<Schemas['Kept']>(client(token).POST('/api/owner/practised', { body: { horse, logs } }))

export const filmList = (token: string, horse: string) =>
  asked<Schemas['FilmList']>(client(token).GET('/api/owner/horses/{id}/films', { params: { path: { id: horse } } }))

/** Sends a photograph; it is made smaller before, so that a weak signal carries it. */
export const sendPhoto = (token: string, horse: string, photo: Blob, caption: string) =>
  asked<Schemas['SentPhotograph']>(
    client(token).POST('/api/owner/horses/{id}/photographs', {
      params: { path: { id: horse }, query: { caption } },
      body: photo as unknown as string,
      bodySerializer: (body) => body as unknown as Blob,
      headers: { 'Content-Type': photo.type || 'image/jpeg' },
    }),
  )
