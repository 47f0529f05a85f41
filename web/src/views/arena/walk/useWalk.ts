// A walk in the open session: what the rules on this device say of it after each button,
// and its clocks between them, which run on evenly.
import { useIntervalFn } from '@vueuse/core'
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue'
import type { Schemas } from '../../../api/types'
import type { useArena } from '../useArena'
import { mind } from '../useDevice'

type Arena = ReturnType<typeof useArena>

/** Buttons are deaf for so long after they have swapped in their place, ms. */
const deaf = 500

export function useWalk(arena: Arena, before: () => number) {
  const told = shallowRef<Schemas['DeskWalked']>()
  const toldAt = ref(0)
  const now = ref(Date.now())
  const pressedAt = ref(0)

  async function look() {
    if (!arena.now) return
    told.value = await arena.walk(before())
    toldAt.value = Date.now()
  }
  watch(
    () => arena.now?.count,
    () => void look(),
    { immediate: true },
  )
  const clock = useIntervalFn(() => (now.value = Date.now()), 250)
  const again = useIntervalFn(() => void look(), 5000)
  // A phone that was locked comes back to the clock as it stands.
  const seen = () => document.visibilityState === 'visible' && void look()
  document.addEventListener('visibilitychange', seen)
  onUnmounted(() => {
    clock.pause()
    again.pause()
    document.removeEventListener('visibilitychange', seen)
  })

  const state = computed(() => told.value?.state)
  const since = computed(() => Math.max(0, (now.value - toldAt.value) / 1000))
  const owed = computed(() => {
    const s = state.value
    return s ? Math.max(0, s.owed - (s.falls ? since.value : 0)) : 0
  })
  const standing = computed(() => (state.value?.of ?? 0) > 0)
  const toStand = computed(() => (standing.value && state.value ? Math.max(0, state.value.stand - since.value) : 0))
  const outFor = computed(() => (state.value ? state.value.out_for + (state.value.phase === 'out' ? since.value : 0) : 0))

  // One buzz, and a quiet tone, as a stand is over.
  watch(toStand, (left, was) => left === 0 && was > 0 && mind())

  /** So soon after a button another finger may still be where it was. */
  const swapped = computed(() => now.value - pressedAt.value < deaf)

  async function press(button: NonNullable<Schemas['TrackWalk']['button']>, more: Partial<Schemas['TrackWalk']> = {}) {
    if (Date.now() - pressedAt.value < deaf) return ''
    pressedAt.value = Date.now()
    return arena.mark({ walk: { button, ...more } })
  }

  /** At home: what the outing counts as is logged with it. */
  async function home() {
    await press('home')
    await look()
    for (const rep of told.value?.reps ?? []) await arena.log({ kind: 'rep', rep })
    await look()
  }

  return { state, swapped, next: computed(() => told.value?.next), owed, standing, toStand, outFor, press, home, look }
}
