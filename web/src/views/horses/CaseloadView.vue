<script setup lang="ts">
// The caseload: a ruled page with the need at the left, and behind the margin rule
// at the right a note only for who needs something. Calm comes from empty margins.
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue'
import { api, told } from '../../api/client'
import { isHelper } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import { useKeys } from '../../keys/keys'
import { bringAlong, broughtAlong } from '../../offline/bringAlong'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import { clockTime, count, inWords, localDate, longDate } from '../../words'
import CaseRow from './CaseRow.vue'

const CopyNote = defineAsyncComponent(() => import('./CopyNote.vue'))
const BridgeKey = defineAsyncComponent(() => import('../../parts/BridgeKey.vue'))

type Row = Schemas['Row']

const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/caseload')))
const { open } = useLeaf()
const typed = ref('')
const filter = useTemplateRef('filter')
const list = useTemplateRef('list')
const all = ref(false)
/** The first view has shown: what can wait is looked for now. */
const settled = ref(false)
setTimeout(() => (settled.value = true), 1500)
const today = localDate(Date.now())

watch(data, (rows) => {
  const worked = (rows ?? []).filter((r) => !r.case.finished_on)
  if (worked.length) setTimeout(() => void bringAlong(worked), 1500) // after the first view has shown
})

const rows = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (data.value ?? []).filter((r) => {
    const text = [r.name, r.yard, r.case.goal, r.care, r.problem.text, ...r.owners].join(' ').toLowerCase()
    return words.every((w) => text.includes(w))
  })
})
const of = (need: string) => rows.value.filter((r) => r.need === need)
const working = computed(() => rows.value.filter((r) => r.need !== 'finished'))
const finished = computed(() => of('finished'))
const unassessed = computed(() => working.value.filter((r) => !r.assessed && !r.unread))

interface Group {
  title: string
  says: string
  rows: Row[]
  calm?: boolean
}
const needs = computed<Group[]>(() => [
  { title: 'First', says: 'danger, pain, overdue', rows: of('first') },
  { title: 'Decide', says: 'dates and what was not looked at', rows: of('decide') },
  { title: 'On course', says: 'nothing to do', rows: of('on course'), calm: true },
  { title: 'Nearly done', says: 'last checks', rows: of('nearly done'), calm: true },
])
const groups = computed<Group[]>(() => {
  const listed =
    open.value === 'yard'
      ? [...new Set(working.value.map((r) => r.yard))]
          .sort()
          .map((y) => ({ title: y || 'No yard', says: '', rows: working.value.filter((r) => r.yard === y) }))
      : open.value === 'finished'
        ? [{ title: 'Finished', says: 'kept for when they come back', rows: finished.value }]
        : open.value === 'unassessed'
          ? [{ title: 'Not assessed', says: 'look before you plan', rows: unassessed.value }]
          : typed.value && finished.value.length
            ? [...needs.value, { title: 'Finished', says: '', rows: finished.value }]
            : needs.value
  return listed.filter((g) => g.rows.length > 0)
})
/** A long page folds those who need nothing, and so does one in the hand. */
const folds = computed(() => working.value.length > 15 && !typed.value && !open.value)
const calm = computed(() => needs.value.filter((g) => g.calm).reduce((n, g) => n + g.rows.length, 0))

const says = computed(() => {
  if (!data.value?.length) return ''
  const first = of('first').length
  const decide = of('decide').length
  const parts = [
    first && `${inWords(first)} ${first === 1 ? 'comes' : 'come'} first`,
    decide && `${inWords(decide)} ${decide === 1 ? 'wants' : 'want'} a decision`,
    calm.value && `${inWords(calm.value)} ${calm.value === 1 ? 'needs' : 'need'} nothing from you today`,
  ].filter(Boolean)
  const line = parts.join(', ')
  return line && `${line.charAt(0).toUpperCase()}${line.slice(1)}.`
})
const leaves = computed(() => [
  { key: 'yard', name: 'by yard' },
  { key: 'finished', name: `finished, ${finished.value.length || 'none'}` },
  { key: 'unassessed', name: `not assessed, ${unassessed.value.length || 'none'}` },
  { key: 'planks', name: 'what the planks mean' },
])

/** The next of such links after the one that has the focus. */
function step(css: string, by: number) {
  const links = [...(list.value?.querySelectorAll<HTMLElement>(css) ?? [])].filter((l) => l.offsetParent)
  const at = links.findIndex((l) => l === document.activeElement)
  links[(at + by + (at < 0 && by < 0 ? links.length + 1 : links.length)) % links.length]?.focus()
}
useKeys([
  { press: '/', does: 'filter', run: () => filter.value?.focus() },
  { press: 'j', does: 'the next horse', run: () => step('a.name', 1) },
  { press: 'k', does: 'the horse before', run: () => step('a.name', -1) },
  { press: 'n', does: 'the next note', run: () => step('a.does', 1) },
])
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Horses</h1>
      <div class="facts">
        <p>{{ longDate(today) }}. {{ says }}</p>
        <p v-if="broughtAlong.horses" class="small" role="status">
          {{ count(broughtAlong.horses, 'horse', 'horses') }} kept for the yard at {{ clockTime(broughtAlong.at) }}
        </p>
      </div>
      <div class="acts">
        <input
          v-show="data?.length !== 0"
          ref="filter"
          v-model="typed"
          type="search"
          class="filter"
          :class="{ few: (data?.length ?? 0) < 9 }"
          placeholder="Horse, owner or yard"
          aria-label="Filter the horses"
        />
        <RouterLink to="/horses/new" class="button">Take on a horse</RouterLink>
      </div>
    </header>
    <CopyNote v-if="settled && !isHelper" />
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <div v-if="data?.length === 0" class="stack empty">
        <h2>No horses yet</h2>
        <p>Take on the first one: its name, its owner, and how you will know it's fixed. The rest can wait.</p>
        <div><RouterLink to="/horses/new" class="button">Take on the first horse</RouterLink></div>
      </div>
      <div v-else-if="open === 'planks'" class="stack empty">
        <h2>What the planks mean</h2>
        <BridgeKey />
        <p>A plank is a step of the ladder. The flag stands at the goal; what lies beyond is pale.</p>
      </div>
      <p v-else-if="groups.length === 0" class="empty">
        No {{ typed || 'horse' }} here.
        <RouterLink v-if="typed" :to="{ path: '/horses/new', query: { name: typed } }">Take on {{ typed }}</RouterLink>
      </p>
      <div v-else ref="list" class="load" :class="{ folds, all }">
        <p class="heads small quiet" aria-hidden="true">
          <span>horse</span><span>in work for</span><span>bridge to the goal</span><span>last worked</span
          ><span class="date">today, and five weeks</span><span class="in">in the margin</span>
        </p>
        <section v-for="g in groups" :key="g.title" class="kin group" :class="{ calm: g.calm }">
          <header>
            <h2>{{ g.title }}</h2>
            <p class="small quiet">{{ g.says }}</p>
          </header>
          <ul>
            <CaseRow v-for="r in g.rows" :key="r.id" :row="r" :today="today" />
          </ul>
        </section>
        <button v-if="calm && !open && !all" type="button" class="fold" @click="all = true">
          <b>{{ inWords(calm, true) }} {{ calm === 1 ? 'needs' : 'need' }} nothing today</b> <span>show them</span>
        </button>
      </div>
      <OneTap v-if="data?.length" :leaves="leaves" front="all by need" />
    </PageState>
  </div>
</template>

<style scoped>
.page {
  --case-columns: 176px 96px 232px 88px 154px minmax(0, 1fr);
}
.page-head {
  margin-bottom: 0;
}
.filter {
  font: inherit;
  min-height: 44px;
  width: 230px;
  padding: 0 var(--gap-2);
  border: 0;
  border-bottom: 1.5px solid var(--ink-2);
  background: var(--ivory-0);
  color: inherit;
}
.acts .button {
  min-height: 44px;
  padding: 0 18px;
  font-size: 1rem;
  font-weight: 700;
}
.load {
  padding-bottom: var(--gap-3);
}
.heads {
  display: grid;
  grid-template-columns: var(--case-columns);
  margin-left: 100px;
  line-height: 27px;
}
.heads .in {
  padding-left: 12px;
}
.group {
  border-top: var(--rule);
}
.group ul {
  min-width: 0;
}
.empty {
  padding-top: var(--gap-4);
  max-width: var(--measure);
}
.fold {
  display: none;
  justify-content: space-between;
  align-items: center;
  width: 100%;
  min-height: 56px;
  padding: 0;
  background: none;
  border: 0;
  border-top: var(--rule);
  color: inherit;
  text-align: left;
  cursor: pointer;
}
.fold span {
  color: var(--slate);
  text-decoration: underline;
}
.folds:not(.all) .calm {
  display: none;
}
.folds .fold {
  display: flex;
}
@media (max-width: 1180px) {
  .page {
    --case-columns: 170px 96px 238px 100px minmax(180px, 1fr);
  }
  .heads .date {
    display: none;
  }
}
@media (max-width: 900px) {
  .page {
    --case-columns: minmax(130px, 1fr) 238px minmax(160px, 1fr);
  }
  .heads {
    display: none;
  }
  .group {
    grid-template-columns: minmax(0, 1fr);
  }
  .group header {
    border-bottom: var(--line);
  }
}
@media screen and (max-width: 720px) {
  .page-head .facts {
    order: 3;
    flex-basis: 100%;
    font-size: 0.9375rem;
  }
  .page-head .acts {
    display: contents;
  }
  .filter {
    order: 4;
    width: 100%;
  }
  .acts .button {
    margin-left: auto;
    padding: 0 var(--gap-3);
  }
  .acts .filter.few {
    display: none;
  }
  .group header {
    padding: 4px 0;
    border-bottom: 1px solid var(--ink-1);
  }
  .group header .small {
    display: none;
  }
  .load:not(.all) .calm {
    display: none;
  }
  .fold {
    display: flex;
  }
}
</style>
