// The types of all that the server says and hears, made from its own description.
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Paths = paths
