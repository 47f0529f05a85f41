// An assessment being walked: what the server has of it, and the taps that are
// kept here and not sent yet.
import { v7 } from 'uuid'
import { computed, reactive, ref, shallowRef } from 'vue'
import { api, told, type Trouble } from '../api/client'
import type { Schemas } from '../api/types'
import { useLoad } from '../api/use'
import type { Kept, Outbox, Topic } from '../offline/outbox'
import { patience, within } from '../device/within'
import { at, put } from './doc'

type Walk = Schemas['Walk']
type Source = 'seen' | 'video' | 'told'

/** Makes a mark: puts a value in its place, null for nothing. */
export type Put = (path: string, value: unknown) => void

export function useAssessment(caseId: string, horseId: string, box: Outbox) {
  const view = shallowRef<Schemas['Assessment']>()
  const id = ref('')
  const waiting = shallowRef<Kept<Topic>[]>([])
  const refused = shallowRef<Kept<Topic>[]>([])
  const { data, trouble, load } = useLoad(read)
  const arrivedIds = new Set<string>() // some arrive before they are seen to wait
  const reshaping = new Set<string>() // with these the walk asks otherwise: it is read again once they have arrived
  let unhear = () => {}

  const topic = () => `assessment/${horseId}/${id.value}` as const

  async function read(): Promise<Walk> {
    const walk = await readWalk()
    view.value = walk.newest
    const begun = await within(patience, box.setting<string>(`assessing ${caseId}`))
    await follow(begun && !walk.all.some((a) => a.id === begun) ? begun : (walk.newest?.id ?? v7()))
    return walk
  }

  /** From the server, or as it was kept here when there is no signal. */
  async function readWalk(): Promise<Walk> {
    try {
      const walk = await told(api.GET('/api/cases/{id}/assessment', { params: { path: { id: caseId } } }))
      box.keep(`walk ${caseId}`, walk).catch(() => undefined) // the page does not wait for the copy
      return walk
    } catch (error) {
      const kept = (error as Trouble).status === 0 ? await box.setting<Walk>(`walk ${caseId}`) : undefined
      if (!kept) throw error
      return kept
    }
  }

  async function follow(one: string) {
    id.value = one
    unhear()
    unhear = box.onTold(topic(), (answer, arrived) => {
      view.value = answer.assessment
      if (data.value) void box.keep(`walk ${caseId}`, { ...data.value, newest: answer.assessment })
      for (const one of arrived) arrivedIds.add(one)
      waiting.value = waiting.value.filter((k) => !arrived.has(k.id))
      if ([...arrived].some((k) => reshaping.delete(k))) void load()
      if (answer.refused.length > 0) void look()
    })
    await within(patience, look())
  }

  async function look() {
    waiting.value = await box.waiting(topic())
    refused.value = await box.refusedOf(topic())
  }

  /** Begins another assessment, of today, from what the last one found. */
  function again() {
    return follow(v7())
  }

  const doc = computed(() =>
    waiting.value.reduce(
      (tree, k) => {
        const { path, value } = k.entry as Schemas['AssessMark']
        return put(tree, path, value ?? null)
      },
      (view.value?.doc ?? {}) as Record<string, unknown>,
    ),
  )

  let turn: Promise<unknown> = Promise.resolve()

  const mark: Put = (path, value) => {
    turn = turn.then(() => keep(path, value)).catch(() => undefined) // the outbox says what it could not keep
  }

  async function keep(path: string, value: unknown) {
    if (view.value?.id !== id.value) await box.keep(`assessing ${caseId}`, id.value) // found again after a reload
    const better = refused.value.filter((k) => (k.entry as Schemas['AssessMark']).path === path).map((k) => k.id)
    if (better.length > 0) {
      await box.forgive(better)
      refused.value = refused.value.filter((k) => !better.includes(k.id))
    }
    const kept = await box.add(topic(), { path, value })
    const reshapes = !path.includes('/') || /^(problems|sources)\/[^/]+$/.test(path)
    if (arrivedIds.has(kept.id)) {
      if (reshapes) void load()
      return
    }
    waiting.value = [...waiting.value, kept]
    if (reshapes) reshaping.add(kept.id)
  }

  /** Waits until all that was tapped has arrived. */
  async function done() {
    await turn
    await box.send()
  }

  /** What is wrong with what was put in a place. */
  function wrong(path: string): string | undefined {
    const bad = refused.value.find((k) => (k.entry as Schemas['AssessMark']).path === path)
    return bad?.refused ?? view.value?.result.doubts.find((d) => d.path === path)?.say
  }

  /** What was typed in a place and could not be taken; it stays to be mended. */
  const typed = (path: string): unknown =>
    (refused.value.find((k) => (k.entry as Schemas['AssessMark']).path === path)?.entry as Schemas['AssessMark'] | undefined)
      ?.value ?? at(doc.value, path)

  const source = computed(() => (at(doc.value, 'from') as Source | undefined) ?? 'seen')

  return reactive({ data, trouble, load, view, id, doc, waiting, mark, again, done, wrong, typed, source, stop: () => unhear() })
}

export type Assessing = ReturnType<typeof useAssessment>
