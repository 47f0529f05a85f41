// The four hooves, as they are tapped and named.
import type { Schemas } from '../api/types'
import { sideWord } from '../words'

export type Hoof = Schemas['GaitLanding']['hoof']

/** In the order of an even walk's beats, each with its key. */
export const hooves: { hoof: Hoof; key: string }[] = [
  { hoof: 'near hind', key: 'a' },
  { hoof: 'near fore', key: 's' },
  { hoof: 'off hind', key: 'k' },
  { hoof: 'off fore', key: 'l' },
]

/** A hoof in the practice's words. */
export const hoofSaid = (hoof: string) => `${sideWord(hoof.split(' ')[0] ?? '')} ${hoof.split(' ')[1] ?? ''}`

/** More landings of one timing are a long way, and no clearer; a session takes no more. */
export const mostLive = 240
