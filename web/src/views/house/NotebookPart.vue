<script setup lang="ts">
// The notebook of earlier years: a table, its columns guessed and shown on five lines, what
// can't be read said by line. All of it comes in or nothing, and is undone as one.
import { computed, ref, shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { count, instant, size } from '../../words'

const emit = defineEmits<{ changed: [] }>()
const kept = useLoad(() => told(api.GET('/api/house/notebooks')))
const sending = useSend()
const name = ref('')
const text = ref('')
const look = shallowRef<Schemas['NotebookLook']>()
const problem = ref('')
const skip = ref(false)
const wrong = ref('')
const said = ref('')

const most = 230_000
async function choose(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  wrong.value = said.value = ''
  look.value = undefined
  if (file.size > most) {
    wrong.value = `This table has ${size(file.size)}. Take it in by parts of ${size(most)} at most, each with its header.`
    return
  }
  name.value = file.name
  text.value = await file.text()
  skip.value = false
  await lookAt()
}
async function lookAt(columns?: string[]) {
  const body = { name: name.value, text: text.value, columns }
  const seen = await sending.send(() => told(api.POST('/api/house/notebooks/look', { body })))
  if (seen) look.value = seen
}
function map(i: number, field: string) {
  const columns = look.value?.columns.map((c, n) => (n === i ? field : c === field ? '' : c))
  if (!look.value || !columns) return
  look.value = { ...look.value, columns }
  void lookAt(columns)
}
async function take() {
  const l = look.value
  if (!l) return
  const body = { name: name.value, text: text.value, columns: l.columns, problem: problem.value || undefined, skip: skip.value }
  const done = await sending.send(() => told(api.POST('/api/house/notebooks', { body })))
  if (!done) return
  said.value = `${count(done.lines, 'line is', 'lines are')} in, with ${count(done.horses, 'new horse', 'new horses')} and ${count(done.people, 'new owner', 'new owners')}. Each stands with its horse, under Sessions.`
  look.value = undefined
  await kept.load()
  emit('changed')
}
async function undo(id: string) {
  const now = await sending.send(() => told(api.POST('/api/notebooks/{id}/undo', { params: { path: { id } } })))
  if (!now) return
  kept.data.value = now
  said.value = 'It is undone: all that it brought is gone.'
  emit('changed')
}
const ready = computed(() => {
  const l = look.value
  return l !== undefined && l.good > 0 && (l.all_wrong === 0 || skip.value) && (l.new.length === 0 || problem.value !== '')
})
const fields = computed(() => sending.trouble.value?.fields ?? {})
</script>

<template>
  <section class="stack" aria-labelledby="notebook">
    <h2 id="notebook">The notebook of earlier years</h2>
    <p>
      A table with one line for each horse and day, saved from a spreadsheet as CSV. Its lines stand with the horse to be read.
      They judge nothing: nobody logged them ask by ask.
    </p>
    <div class="row">
      <label class="button plain file">
        Choose the table
        <input type="file" accept=".csv,.txt,text/csv" class="visually-hidden" @change="choose" />
      </label>
      <span v-if="look" class="quiet">{{ name }}</span>
    </div>
    <p v-if="wrong" class="short" role="alert">{{ wrong }}</p>
    <template v-if="look">
      <p>
        <b>{{ count(look.lines, 'line', 'lines') }}</b>, {{ look.good }} can be read. Say what each column is.
      </p>
      <div class="wide">
        <table class="map">
          <thead>
            <tr>
              <th v-for="(h, i) in look.header" :key="i">
                {{ h || `column ${i + 1}` }}
                <select
                  class="plain-field"
                  :aria-label="`What is ${h || `column ${i + 1}`}`"
                  :value="look.columns[i]"
                  @change="map(i, ($event.target as HTMLSelectElement).value)"
                >
                  <option value="">left out</option>
                  <option v-for="f in look.fields" :key="f" :value="f">{{ f }}</option>
                </select>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, r) in look.first" :key="r">
              <td v-for="(h, i) in look.header" :key="i" :class="{ quiet: !look.columns[i] }">{{ row[i] }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <div v-if="look.all_wrong" class="wrongs">
        <p class="strong">{{ count(look.all_wrong, 'line', 'lines') }} can't be read:</p>
        <ul>
          <li v-for="(w, i) in look.wrong" :key="i">Line {{ w.line }}: {{ w.say }}</li>
        </ul>
        <p v-if="look.all_wrong > look.wrong.length" class="quiet small">These are the first.</p>
        <label class="row"><input v-model="skip" type="checkbox" /> Leave these out</label>
      </div>
      <p v-if="look.known.length">Here already: {{ look.known.join(', ') }}.</p>
      <template v-if="look.new.length">
        <p>
          <b>Not here yet: {{ look.new.join(', ') }}.</b> They are taken on as finished.
          <template v-if="look.people.length">New owners: {{ look.people.join(', ') }}.</template>
        </p>
        <FieldRow v-slot="f" label="What they came for" :wrong="fields['problem']">
          <select :id="f.id" v-model="problem" class="plain-field" :aria-describedby="f.describedby">
            <option value="">choose</option>
            <option v-for="p in look.problems" :key="p.problem" :value="p.problem">{{ p.name.text }}</option>
          </select>
        </FieldRow>
      </template>
      <div class="row">
        <ElButton type="primary" :disabled="!ready" :loading="sending.sending.value" @click="take"
          >Take {{ look.good }} lines in</ElButton
        >
        <ElButton @click="look = undefined">Leave it</ElButton>
      </div>
    </template>
    <p v-if="fields['text'] || fields['columns']" class="short" role="alert">{{ fields['text'] ?? fields['columns'] }}</p>
    <WrongNote :trouble="sending.trouble.value" :shown="['text', 'columns', 'problem']" />
    <p v-if="said" role="status" class="strong">{{ said }}</p>
    <ul>
      <li v-for="n in kept.data.value" :key="n.id" class="row between line">
        <span
          ><b>{{ n.name }}</b
          >, {{ instant(n.at) }}, by {{ n.by
          }}{{ n.undone ? ': undone' : `: ${count(n.lines, 'line', 'lines')}, ${count(n.horses, 'horse', 'horses')}` }}</span
        >
        <ElButton v-if="!n.undone" link @click="undo(n.id)"
          >undo it<span class="visually-hidden"> {{ n.name }}</span></ElButton
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.wide {
  overflow-x: auto;
}
.map {
  border-collapse: collapse;
}
.map th,
.map td {
  text-align: left;
  vertical-align: top;
  padding: var(--gap-1) var(--gap-3) var(--gap-1) 0;
  border-bottom: var(--line);
  max-width: 30ch;
}
.map select {
  display: block;
  min-width: 15ch;
}
.map td {
  min-width: 12ch;
}
.wrongs {
  border-left: 3px solid var(--rust);
  padding-left: var(--gap-3);
}
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
