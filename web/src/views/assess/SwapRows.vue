<script setup lang="ts">
// The swap row by row: up to six goes at the same task, one thing changed at a time.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import type { Assessing } from '../../cases/useAssessment'
import TypedAnswer from '../../parts/TypedAnswer.vue'
import { count, shortDate } from '../../words'

type Row = Schemas['AssessSwapRow']

const { walk, problem } = defineProps<{ walk: Assessing; problem: string }>()
const path = computed(() => `problems/${problem}/swap_rows`)
const rows = computed(() => (walk.typed(path.value) ?? []) as Row[])
const most = 6
const answers = computed(() => (walk.data?.words.answers ?? []) as string[])
const heads = computed(
  () =>
    walk.data?.problems[0]?.sections
      .flatMap((s) => s.questions)
      .find((q) => q.path === 'first_look/head')
      ?.choices?.map((c) => c.value) ?? [],
)
const people = computed(() => [...new Set([...(walk.data?.people ?? []).map((p) => p.name), ...rows.value.map((r) => r.person)])])

function put(list: Row[]) {
  walk.mark(path.value, list.length ? list : null)
}
function change(i: number, part: Partial<Row>) {
  put(
    rows.value.map((r, n) =>
      n === i ? (Object.fromEntries(Object.entries({ ...r, ...part }).filter(([, v]) => v !== undefined && v !== 0)) as Row) : r,
    ),
  )
}
const films = computed(() => walk.data?.films ?? [])
/** What was changed at one ask in a session, as it was logged there. */
const arena = computed(() => walk.data?.swapped)
const took = computed(() =>
  (arena.value?.rows ?? []).every((a) => rows.value.some((r) => JSON.stringify(r) === JSON.stringify(a))),
)
const take = () => put([...rows.value, ...(arena.value?.rows ?? [])])
/** The next row begins as the last one went: one thing of it is changed. */
function add() {
  const last = rows.value.at(-1)
  put([...rows.value, { person: last?.person ?? people.value[0] ?? '', tack: last?.tack ?? 'usual tack' }])
}
const typed = (put: unknown) => (typeof put === 'string' ? put : '')
const text = (e: Event) => (e.target as HTMLInputElement).value
</script>

<template>
  <details class="stack" :open="rows.length > 0 || arena !== undefined">
    <summary>Row by row: another person, another bit, one thing changed at a time</summary>
    <p class="quiet small">
      The first row is the usual person in the usual tack. Do one of them twice: it shows how much is chance.
    </p>
    <datalist id="swap-people"><option v-for="p in people" :key="p" :value="p" /></datalist>
    <ol>
      <li v-for="(r, i) in rows" :key="i" class="one">
        <label
          >Person
          <TypedAnswer
            kind="text"
            maxlength="60"
            list="swap-people"
            :value="r.person"
            @put="change(i, { person: typed($event) })"
        /></label>
        <label>Tack <TypedAnswer kind="text" maxlength="120" :value="r.tack" @put="change(i, { tack: typed($event) })" /></label>
        <label
          >Level
          <select class="plain-field" :value="r.level ?? 0" @change="change(i, { level: Number(text($event)) })">
            <option :value="0">not noted</option>
            <option v-for="n in 10" :key="n" :value="n">{{ n }}</option>
          </select></label
        >
        <label
          >Answer
          <select
            class="plain-field"
            :value="r.grade ?? ''"
            @change="change(i, { grade: (text($event) || undefined) as Row['grade'] })"
          >
            <option value="">not noted</option>
            <option v-for="a in answers" :key="a">{{ a }}</option>
          </select></label
        >
        <label
          >Gait <TypedAnswer kind="text" maxlength="60" :value="r.gait" @put="change(i, { gait: typed($event) || undefined })"
        /></label>
        <label
          >Head
          <select
            class="plain-field"
            :value="r.head ?? ''"
            @change="change(i, { head: (text($event) || undefined) as Row['head'] })"
          >
            <option value="">not noted</option>
            <option v-for="h in heads" :key="h">{{ h }}</option>
          </select></label
        >
        <label v-if="films.length"
          >Seen
          <select class="plain-field" :value="r.clip ?? ''" @change="change(i, { clip: text($event) || undefined })">
            <option value="">at the yard</option>
            <option v-for="f in films" :key="f.id" :value="f.id">
              on the clip of {{ shortDate(f.on) }}{{ f.name ? `, ${f.name}` : '' }}
            </option>
          </select></label
        >
        <button type="button" class="as-link" @click="put(rows.filter((_, n) => n !== i))">
          take out<span class="visually-hidden"> row {{ i + 1 }}</span>
        </button>
      </li>
    </ol>
    <p v-if="walk.wrong(path)" class="short" role="alert">{{ walk.wrong(path) }}</p>
    <p v-if="arena && rows.length + arena.rows.length <= most && !took" class="row">
      <span
        >In the arena, {{ shortDate(arena.on) }}, {{ arena.name }}: {{ count(arena.rows.length, 'go', 'goes') }} with another
        person or tack.</span
      >
      <ElButton size="small" @click="take">Take them over</ElButton>
    </p>
    <ElButton :disabled="rows.length >= most" @click="add">{{
      rows.length >= most ? 'Six rows are the most' : 'Add a row'
    }}</ElButton>
  </details>
</template>

<style scoped>
summary {
  min-height: 24px;
  cursor: pointer;
}
.one {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(140px, 1fr));
  gap: var(--gap-2) var(--gap-3);
  align-items: end;
  padding: var(--gap-2) 0;
  border-top: var(--line);
}
.one label {
  display: grid;
  font-weight: 600;
}
.one input,
.one select {
  min-width: 0;
  width: 100%;
  font-weight: 400;
}
</style>
