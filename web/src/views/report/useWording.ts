// A page that the product wrote from the log and the trainer words, sentence by
// sentence: its wording as it is kept, and as it is being changed.
import { computed, ref, shallowRef } from 'vue'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import type { Difference } from '../../parts/StaleNote.vue'

type Edit = Schemas['ReportEdit']
type Body = { version: number; edits: Record<string, Edit> }
type Page = { version: number; sections: Schemas['ReportSection'][] }

export function useWording<P extends Page>(read: () => Promise<P>, keep: (body: Body) => Promise<P>) {
  const edits = shallowRef<Record<string, Edit>>({})
  const version = ref(0)
  const editing = ref(false)
  const saved = ref(false)
  const saving = useSend()
  const { data, trouble, load } = useLoad(async () => take(await read()))

  /** Takes a page with its wording as it is kept. */
  function take(p: P): P {
    version.value = p.version
    const list = p.sections.flatMap((s) => s.sentences).filter((s) => s.edited || s.left_out)
    edits.value = Object.fromEntries(
      list.map((s) => [s.id, { text: s.edited ?? '', basis: s.changed ? '' : s.basis, left_out: s.left_out, reason: s.reason }]),
    )
    return p
  }

  const sections = computed(() =>
    (data.value?.sections ?? [])
      .map((s) => ({ ...s, sentences: editing.value ? s.sentences : s.sentences.filter((x) => !edits.value[x.id]?.left_out) }))
      .filter((s) => s.sentences.length > 0),
  )

  function edit(sentence: Schemas['ReportSentence'], change?: Partial<Edit>) {
    const rest = Object.fromEntries(Object.entries(edits.value).filter(([key]) => key !== sentence.id))
    const now = edits.value[sentence.id] ?? { text: sentence.said.text, basis: sentence.basis }
    edits.value = change ? { ...rest, [sentence.id]: { ...now, basis: sentence.basis, ...change } } : rest
    saved.value = false
  }

  async function save() {
    const now = await saving.send(() => keep({ version: version.value, edits: edits.value }))
    if (!now) return
    data.value = take(now)
    editing.value = false
    saved.value = true
  }

  /** As it was before anything was worded now. */
  async function leave() {
    editing.value = false
    await load()
  }

  const theirs = computed(() => saving.trouble.value?.current as Schemas['Wording'] | undefined)
  const nameOf = (key: string) => data.value?.sections.find((s) => s.sentences.some((x) => x.id === key))?.title.text ?? key
  const differing = computed<Difference[]>(() => {
    const t = theirs.value
    if (!t) return []
    const say = (e?: Edit) => (e?.left_out ? 'left out' : (e?.text ?? 'as written from the log'))
    return [...new Set([...Object.keys(edits.value), ...Object.keys(t.edits)])]
      .map((key) => ({ name: nameOf(key), mine: say(edits.value[key]), theirs: say(t.edits[key]) }))
      .filter((d) => d.mine !== d.theirs)
  })

  async function mine() {
    version.value = theirs.value?.version ?? version.value
    await save()
  }

  async function takeTheirs() {
    saving.trouble.value = undefined
    await load()
  }

  const wrongAt = (id: string) => saving.trouble.value?.fields[`edits.${id}`]

  return {
    data,
    trouble,
    load,
    sections,
    edits,
    edit,
    editing,
    saved,
    saving,
    save,
    leave,
    theirs,
    differing,
    mine,
    takeTheirs,
    wrongAt,
  }
}
