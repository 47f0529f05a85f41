// What is asked as a horse is taken on.
import type { Schemas } from '../../api/types'

export type Owning = Pick<Schemas['Intake'], 'owner_id' | 'owner' | 'handlers'>

/** Nobody yet. */
export const owning = (): Owning => ({})

/** The fields of the record that matter before the first session. */
export const atFirst = ['sex', 'rides', 'unhandled', 'guards_itself', 'things'] as const
