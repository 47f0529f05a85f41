// The leaves of a page: what is behind its front, one tap away. The address says
// which is open, so that going back turns the page back; what else the address
// says of the page stays.
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

export interface Leaf {
  key: string
  name: string
}

export function useLeaf() {
  const route = useRoute()
  const router = useRouter()
  const open = computed(() => String(route.query.see ?? ''))
  /** Where a leaf is; none: the front. A cause is one that the leaf opens at. */
  const at = (key?: string, cause?: string) => ({ query: { ...route.query, see: key, cause } })
  const turn = (key?: string, cause?: string) => void router.push(at(key, cause))
  return { open, at, turn }
}
