// From a pad's taps to an entry of the track: what is carried over from the ask
// at work is filled in here, for every kind.
import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../api/types'
import type { AnswerWord } from '../../parts/answers'
import type { Draft } from './hold'
import type { Measured } from './MeasureRow.vue'
import type { Bursted } from './pads/BurstPad.vue'
import type { Dosed } from './pads/DosePad.vue'
import type { Running } from './pads/SpellPad.vue'
import type { Passed } from './SpotRow.vue'
import type { Rep, useArena } from './useArena'

type Arena = ReturnType<typeof useArena>
export type Pad = Schemas['ArenaCard']['pad']

export function usePads(arena: Arena, id: string, take: () => Draft) {
  // Kept on this device: a clock that runs goes on over a reload.
  const measure = useLocalStorage<Measured>(`measure-${id}`, {}, { serializer: StorageSerializers.object })
  /** An answer to a hold that waits for how long it stood. */
  const untimed = ref<AnswerWord>()
  const running = useLocalStorage<Running | null>(`spell-${id}`, null, { serializer: StorageSerializers.object })
  /** The work of the last spell. */
  const worked = useLocalStorage<Pick<Running, 'level' | 'work'>>(`worked-${id}`, {}, { serializer: StorageSerializers.object })
  /** Where on the body a stimulus is. */
  const place = useLocalStorage(`place-${id}`, '')
  const passed = useLocalStorage<Passed>(
    `spot-${id}`,
    { spot: '', heading: '', drawn: 0 },
    { serializer: StorageSerializers.object },
  )
  const places = computed(() => arena.card?.places ?? [])
  /** A pad chosen by hand, for the ask it was chosen on. */
  const chosen = ref<{ step: string; pad: Pad }>()

  const pad = computed<Pad>(() => {
    const card = arena.card
    if (!card) return 'answers'
    if (chosen.value?.step === card.key) return chosen.value.pad
    return card.pad
  })
  const ask = () => ({ step: arena.current.step, variant: arena.current.variant })
  /** The thing that it is asked with, where the ladder is about one. */
  const thing = useLocalStorage(`thing-${id}`, '')
  watch(
    () => arena.data?.brief.thing,
    (named) => (thing.value ||= named ?? ''),
    { immediate: true },
  )
  const withThing = () => (arena.card?.about_thing && thing.value.trim() ? { thing: thing.value.trim() } : {})
  const choosePad = (p: Pad) => (chosen.value = { step: arena.current.step, pad: p })

  /** A clock that runs ends with the answer. */
  function clocked(m: Measured, word: AnswerWord): Measured {
    if (!m.since) return m
    const reached = Math.max(0, Math.floor((Date.now() - m.since) / 1000))
    return { ...m, reached, ended_by: word === 'refused' ? 'horse' : 'handler' }
  }

  async function answer(word: AnswerWord, long?: number | null) {
    const card = arena.card
    if (!arena.current.step || !card || pad.value === 'places') return
    const m = clocked(measure.value, word)
    const asks = card.measures.includes('hold') && m.reached === undefined && ['tolerated', 'accepted', 'offered'].includes(word)
    if (asks && long === undefined) {
      untimed.value = word
      return
    }
    untimed.value = undefined
    measure.value = {}
    const { spot, heading, drawn } = passed.value
    const by = card.spots && spot.trim() ? { spot: spot.trim(), heading, drawn: drawn || undefined } : {}
    passed.value = { spot, heading, drawn: 0 }
    const held = {
      reached: m.reached ?? long ?? undefined,
      corrections: m.corrections || undefined,
      ended_by: m.ended_by,
      means: m.means,
      in_words: m.in_words,
    }
    await arena.log({
      kind: 'rep',
      rep: { ...ask(), ...withThing(), target: arena.current.target, answer: word, ...by, ...take(), ...held },
    })
  }

  const dose = (d: Dosed) => {
    const { peak } = take()
    const at = { place: (place.value || undefined) as Rep['place'] }
    return arena.log({
      kind: 'dose',
      dose: { ...ask(), ...withThing(), ...at, target: arena.current.target, ...d, peak, answer: '' },
    })
  }
  const trial = (one: Schemas['TrackTrial']) => arena.log({ kind: 'rep', rep: { ...ask(), answer: '', trial: one } })
  const offer = (word: Schemas['TrackOffer']['answer']) => arena.log({ kind: 'offer', offer: { ...ask(), answer: word } })
  const burst = (b: Bursted) => arena.log({ kind: 'burst', burst: { ...ask(), ...b } })
  const stopped = (i: Schemas['TrackInterruption']) => arena.log({ kind: 'interruption', interruption: i })

  /** Ends the spell that runs: it is kept with how long it was. */
  async function endSpell(by?: Schemas['TrackSpell']['ended_by']) {
    const r = running.value
    if (!r) return
    running.value = null
    const level = take().peak ?? r.level
    if (!r.rest) worked.value = { level, work: r.work }
    await arena.log({
      kind: 'spell',
      spell: {
        ...ask(),
        place: r.place as Schemas['TrackSpell']['place'],
        rest: r.rest || undefined,
        seconds: Math.round((Date.now() - r.at) / 1000),
        level: r.rest ? undefined : level,
        work: r.rest ? undefined : r.work,
        came: r.rest ? (r.asked ? 'asked' : 'by itself') : undefined,
        feet_in: r.rest ? r.feet : undefined,
        ended_by: by,
      },
    })
  }

  async function beginSpell(place: string, rest: boolean) {
    await endSpell()
    // What the work was, and its level, stay as they were until they are felt anew.
    const feet = { 'front feet in': 2, in: 4 }[place]
    running.value = { place, rest, at: Date.now(), feet, ...(rest ? {} : worked.value) }
  }

  return {
    thing,
    place,
    passed,
    measure,
    untimed,
    running,
    places,
    pad,
    choosePad,
    answer,
    dose,
    trial,
    offer,
    burst,
    stopped,
    endSpell,
    beginSpell,
  }
}
