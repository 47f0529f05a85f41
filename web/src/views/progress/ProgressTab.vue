<script setup lang="ts">
// What changed: three findings in words, each the heading of its own evidence, and
// every try behind them. What got worse is said first, and as plainly.
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import { useHorseFile } from '../../cases/file'
import AnswerShape from '../../parts/AnswerShape.vue'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import { dayMonth, longDate, shortDate } from '../../words'
import FindingHead from './FindingHead.vue'
import HandsLeaf from './HandsLeaf.vue'
import LastingPlanks from './LastingPlanks.vue'
import MoreLeaf from './MoreLeaf.vue'
import NumbersTable from './NumbersTable.vue'
import SidePairs from './SidePairs.vue'
import TrendRows from './TrendRows.vue'
import TryHeaps from './TryHeaps.vue'

const { file } = useHorseFile()
const { open } = useLeaf()
const route = useRoute()
const router = useRouter()

const asked = computed(() => ({ since: String(route.query.since ?? ''), step: String(route.query.step ?? '') }))
const { data, trouble, at, load } = useLoad(() =>
  told(api.GET('/api/horses/{id}/progress', { params: { path: { id: file.value?.id ?? '' }, query: asked.value } })),
)
watch(asked, load)

const marked = ref('')
const rows = 4
const lines = computed(() => data.value?.feel.lines ?? [])
const session = computed(() => data.value?.heaps.find((h) => h.session === marked.value))
const leaves = computed(() => [
  { key: 'tables', name: 'all as tables' },
  { key: 'more', name: 'other measures, side by side' },
  ...(data.value?.hands.length ? [{ key: 'hands', name: 'timing of the hands' }] : []),
])
const answers = ['refused', 'try', 'tolerated', 'accepted', 'offered']

function choose(key: 'since' | 'step', event: Event) {
  const value = (event.target as HTMLSelectElement).value
  void router.push({ query: { ...route.query, [key]: value || undefined } })
}
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
    <div v-if="data" class="leafpage">
      <section v-if="data.sessions === 0 && !asked.since && !asked.step" class="none">
        <h2 class="lead">Nothing to compare yet</h2>
        <p>The first session begins it; from the fourth on there is a trend.</p>
      </section>
      <template v-else-if="open === 'tables'"><NumbersTable :numbers="data" /></template>
      <template v-else-if="open === 'more'"><MoreLeaf :numbers="data" /></template>
      <template v-else-if="open === 'hands'"><HandsLeaf :hands="data.hands" :days="data.heaps.map((h) => h.on)" /></template>
      <template v-else>
        <div class="top">
          <p>
            {{ data.says.text }} <template v-if="data.time">{{ data.time.says.text }} </template>Height is the feel it took, of
            ten.
          </p>
          <p class="choose no-print">
            <label
              >Since
              <select name="since" :value="asked.since" @change="choose('since', $event)">
                <option value="">the first day</option>
                <option v-for="d in data.days" :key="d" :value="d">{{ shortDate(d) }}</option>
              </select>
            </label>
            <label
              >Task
              <select name="step" :value="asked.step" @change="choose('step', $event)">
                <option value="">all</option>
                <option v-for="s in data.steps" :key="s.step" :value="s.step">{{ s.name }}</option>
              </select>
            </label>
          </p>
        </div>
        <div class="three">
          <section>
            <FindingHead :finding="data.feel" />
            <TrendRows
              :lines="lines.slice(0, rows)"
              :all="lines"
              :days="data.heaps.map((h) => h.on)"
              :marked="marked"
              @mark="marked = $event"
            />
            <p v-if="lines.length > rows" class="quiet small">{{ lines.length - rows }} more lines in the tables.</p>
          </section>
          <section>
            <FindingHead :finding="data.sides" />
            <SidePairs v-if="data.sides.pairs.length" :pairs="data.sides.pairs.slice(0, 5)" />
          </section>
          <section>
            <FindingHead :finding="data.lasts" />
            <LastingPlanks :gaps="data.lasts.gaps" :marked="marked" @mark="marked = $event" />
          </section>
        </div>
        <div class="two">
          <section v-if="data.before.length" aria-labelledby="before">
            <h2 id="before">Before and after</h2>
            <table>
              <tbody>
                <tr v-for="b in data.before.slice(0, 5)" :key="b.name.text">
                  <th scope="row">{{ b.name.text }}</th>
                  <td>
                    {{ b.before.text }} <span class="quiet small">{{ dayMonth(b.first) }}</span>
                  </td>
                  <td>
                    <b>{{ b.after.text }}</b> <span class="quiet small">{{ dayMonth(b.last) }}</span>
                  </td>
                </tr>
              </tbody>
            </table>
          </section>
          <section aria-labelledby="tries">
            <h2 id="tries">Every try behind it</h2>
            <p class="key small">
              <span v-for="a in answers" :key="a"><AnswerShape :answer="a" width="14" height="14" /> {{ a }}</span>
            </p>
            <TryHeaps :heaps="data.heaps" :marked="marked" @mark="marked = $event" />
            <p v-if="session" role="status">
              <RouterLink :to="`/arena/${session.session}/after`">What {{ longDate(session.on) }} came to</RouterLink>
            </p>
          </section>
        </div>
      </template>
      <OneTap :leaves="leaves" front="what changed" :links="[{ to: `/horses/${file?.id}/sessions`, name: 'every session' }]" />
    </div>
  </PageState>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 var(--gap-4);
  color: var(--ink-2);
}
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-3);
}
select {
  font: inherit;
  color: inherit;
  background: var(--ivory-0);
  border: 0;
  border-bottom: 1px solid var(--ink-2);
  min-height: var(--control);
  max-width: 12rem;
}
.three,
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.7fr) minmax(0, 1.2fr) minmax(0, 1fr);
}
.two {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr);
  border-top: var(--rule);
  padding: var(--gap-2) 0;
}
section {
  display: grid;
  align-content: start;
  gap: var(--gap-2);
  padding: 0 var(--gap-3) var(--gap-3);
}
section:first-child {
  padding-left: 0;
}
.three > section + section {
  border-left: var(--line);
}
.none {
  padding-top: var(--gap-3);
}
table {
  border-collapse: collapse;
}
th {
  text-align: left;
  font-weight: 400;
}
th,
td {
  border-top: var(--line);
  padding: var(--gap-1) var(--gap-2) var(--gap-1) 0;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--gap-3);
}
@media (max-width: 900px) {
  .three,
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  section {
    padding-inline: 0;
  }
  .three > section + section {
    border-left: 0;
    border-top: var(--line);
    padding-top: var(--gap-2);
  }
}
@media print {
  .three {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
}
</style>
