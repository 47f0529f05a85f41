// The visit that is being dragged from one day to another, over all leaves.
import { shallowRef } from 'vue'
import type { Schemas } from '../../api/types'

export const dragged = shallowRef<Schemas['Booked']>()
