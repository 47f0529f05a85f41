<script setup lang="ts">
// The owner's page after a visit: written from the log, then worded by the
// trainer, sentence by sentence. Safety sentences stay as they are.
import { computed, ref, shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import { useLoad, useSend } from '../../api/use'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import PageState from '../../parts/PageState.vue'
import StaleNote, { type Difference } from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate } from '../../words'
import ReportSentence from './ReportSentence.vue'
import SendPanel from './SendPanel.vue'

type Edit = Schemas['ReportEdit']
type Report = Schemas['Report']

const { id } = defineProps<{ id: string }>()
const params = { path: { id } }
const edits = shallowRef<Record<string, Edit>>({})
const version = ref(0)
const editing = ref(false)
const saved = ref(false)
const sending = ref(false)
const saving = useSend()

const { data, trouble, load } = useLoad(async () => take(await told(api.GET('/api/sessions/{id}/report', { params }))))

/** Takes a report with its wording as it is kept. */
function take(r: Report): Report {
  version.value = r.version
  const list = r.sections.flatMap((s) => s.sentences).filter((s) => s.edited || s.left_out)
  edits.value = Object.fromEntries(
    list.map((s) => [s.id, { text: s.edited ?? '', basis: s.changed ? '' : s.basis, left_out: s.left_out, reason: s.reason }]),
  )
  return r
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
  const body = { version: version.value, edits: edits.value }
  const now = await saving.send(() => told(api.PUT('/api/sessions/{id}/report', { params, body })))
  if (!now) return
  data.value = take(now)
  editing.value = false
  saved.value = true
}

const theirs = computed(() => saving.trouble.value?.current as Schemas['Wording'] | undefined)
const differing = computed<Difference[]>(() => {
  const t = theirs.value
  if (!t) return []
  const say = (e?: Edit) => (e?.left_out ? 'left out' : (e?.text ?? 'as written from the log'))
  return [...new Set([...Object.keys(edits.value), ...Object.keys(t.edits)])]
    .map((key) => ({ name: nameOf(key), mine: say(edits.value[key]), theirs: say(t.edits[key]) }))
    .filter((d) => d.mine !== d.theirs)
})
const nameOf = (key: string) => data.value?.sections.find((s) => s.sentences.some((x) => x.id === key))?.title.text ?? key

async function mine() {
  version.value = theirs.value?.version ?? version.value
  await save()
}

async function takeTheirs() {
  saving.trouble.value = undefined
  await load()
}

const print = () => window.print()
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <div class="bar row between no-print">
          <p>
            <RouterLink :to="`/horses/${data.horse.id}/reports`">{{ data.horse.name }}, all reports</RouterLink>
          </p>
          <div class="row">
            <p v-if="saved" role="status">Saved.</p>
            <template v-if="editing">
              <ElButton type="primary" :loading="saving.sending.value" @click="save">Save the wording</ElButton>
              <ElButton @click="((editing = false), load())">Leave it as it was</ElButton>
            </template>
            <template v-else>
              <ElButton @click="editing = true">Word it yourself</ElButton>
              <a class="button plain" :href="`/api/sessions/${data.session}/report.pdf`" download>PDF</a>
              <ElButton @click="print">Print</ElButton>
              <ElButton type="primary" :aria-expanded="sending" @click="sending = !sending">Send</ElButton>
            </template>
          </div>
        </div>
        <p v-if="!data.ended" class="strong no-print">This session is still open; the page may change.</p>
        <StaleNote
          v-if="theirs"
          class="no-print"
          :differences="differing"
          :by="theirs.saved_by"
          @mine="mine"
          @theirs="takeTheirs"
        />
        <WrongNote v-else :trouble="saving.trouble.value" />
        <SendPanel v-if="sending && !editing" :key="data.version" :report="data" @sent="data = { ...data, sent_at: $event }" />
        <article class="paper">
          <header class="head">
            <div>
              <h1>{{ data.horse.name }}</h1>
              <p class="quiet">
                Visit on {{ longDate(data.date) }}<template v-if="data.yard">, {{ data.yard }}</template
                ><template v-if="data.for.length"> · for {{ data.for.join(', ') }}</template>
              </p>
            </div>
            <p class="quiet right">{{ me?.practice_name }}<br />{{ data.by }}</p>
          </header>
          <template v-for="(s, i) in sections" :key="s.key">
            <section class="part" :class="s.key">
              <h2>{{ s.title.text }}</h2>
              <ReportSentence
                v-for="x in s.sentences"
                :key="x.id"
                :sentence="x"
                :edit="edits[x.id]"
                :editing="editing && !x.fixed"
                :report="data"
                :wrong="saving.trouble.value?.fields[`edits.${x.id}`]"
                @change="edit(x, $event)"
                @reset="edit(x)"
              />
            </section>
            <template v-if="i === 0">
              <BridgeDrawing class="picture" :bridge="data.bridge" />
              <dl v-if="data.figures.length" class="figures">
                <div v-for="f in data.figures" :key="f.label.key">
                  <dt>{{ f.label.text }}</dt>
                  <dd>{{ f.before.text === f.after.text ? f.after.text : `${f.before.text} → ${f.after.text}` }}</dd>
                  <dd class="quiet">{{ f.means.text }}</dd>
                </div>
              </dl>
            </template>
          </template>
        </article>
      </template>
    </PageState>
  </div>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  border: var(--line);
  margin: 0;
}
.figures > div {
  padding: var(--gap-3);
}
.figures > div + div {
  border-left: var(--line);
}
.figures dd {
  margin: 0;
}
.figures dd:not(.quiet) {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
.care {
  color: var(--ink-2);
}
@media print {
  .figures > div {
    padding: var(--gap-2);
  }
  .figures dd:not(.quiet) {
    font-size: var(--step-2);
  }
}
</style>
