// The leaves of a page: what is behind its front, one tap away. The address says
// which is open, so that going back turns the page back.
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
  const turn = (key: string) => void router.push({ query: { ...route.query, see: key || undefined } })
  return { open, turn }
}
