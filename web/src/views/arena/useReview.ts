// What a session came to: as the server tells it, or where there is no signal,
// as the rules on this device read its track.
import { computed } from 'vue'
import { api, told, type Trouble } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import { patience, within } from '../../device/within'
import type { Outbox } from '../../offline/outbox'
import { theRules } from '../../rules/rules'
import { keptKey, openHere, type ArenaSession } from './useArena'

export interface ReviewData {
  horse: { id: string; name: string }
  date: string
  review: Schemas['ArenaReview']
  beads: Schemas['ArenaTold'][]
  handlers: Record<string, string>
  /** What only the server can tell: the bridge and the case around it. */
  whole?: Schemas['Summary']
}

export function useReview(id: string, box: Outbox) {
  const topic = `session/${id}` as const

  const { data, trouble, at, load } = useLoad<ReviewData>(async () => {
    const here = box.setting<ArenaSession>(keptKey(id))
    const named = (kept?: ArenaSession) => Object.fromEntries((kept?.handlers ?? []).map((h) => [h.id, h.name]))
    try {
      const whole = await told(api.GET('/api/sessions/{id}/summary', { params: { path: { id } } }))
      const { horse, date, review, beads } = whole
      return { horse, date, review, beads, handlers: { ...whole.names, ...named(await within(patience, here)) }, whole }
    } catch (error) {
      const kept = await here
      if (!kept || (error as Trouble).status === 401) throw error
      await openHere(kept, await box.of(topic))
      const { beads, ...review } = await theRules().ask('review', {})
      return { horse: kept.horse, date: kept.date, review, beads, handlers: named(kept) }
    }
  })

  /** The entry that ended it, here or there. */
  async function endId(): Promise<string | undefined> {
    const here = (await box.of(topic)).find((k) => k.entry.kind === 'end' && !k.entry.replaces)
    return here?.id ?? data.value?.whole?.end_id
  }

  async function keepLine(note: string) {
    const end = await endId()
    if (!end) return false
    await box.add(topic, { kind: 'end', replaces: end, note })
    return true
  }

  /** A slip of the thumb is put right by an entry that names it. */
  async function correct(bead: Schemas['ArenaTold'], to: { answer: Schemas['TrackRep']['answer']; peak?: number }) {
    const { step, variant, target, start, first, seconds, to_try, reached, release, arousal, signs, ways_out, handler, flags } =
      bead
    const rest = {
      step,
      variant,
      target,
      start,
      first,
      seconds,
      to_try,
      reached,
      release,
      arousal,
      signs,
      ways_out,
      handler,
      flags,
    }
    await box.add(topic, { kind: 'rep', replaces: bead.id, rep: { ...rest, answer: to.answer, peak: to.peak } })
    await load()
  }

  async function takeOut(bead: Schemas['ArenaTold']) {
    await box.add(topic, { kind: 'undo', replaces: bead.id })
    await load()
  }

  const ended = computed(() => data.value?.whole?.ended ?? true)
  return { data, trouble, at, load, ended, keepLine, correct, takeOut }
}
