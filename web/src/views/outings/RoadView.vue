<script setup lang="ts">
// The road, afterwards: the newest outing as a line with its stops; under it how far the
// horse was at ease, day by day, on the same metres; what is missing before riding.
import { computed } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import RoadLine from '../../parts/RoadLine.vue'
import { distance } from '../../lengths'
import { clock, count, dayMonth, longDate } from '../../words'
import EaseChart from './EaseChart.vue'

const { id } = defineProps<{ id: string }>()
const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/horses/{id}/outings', { params: { path: { id } } })))
const last = computed(() => data.value?.list.at(-1))
const first = computed(() => data.value?.list[0])
const headline = computed(() => {
  const n = data.value?.next
  if (!n) return 'No outing yet.'
  return `Next time ${n.metres ? distance(n.metres) : `${clock(n.out)} min`} out.`
})
const minutes = (seconds: number) => clock(seconds)
const marks = (n: number, of: number) => Array.from({ length: of }, (_, i) => i < n)
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <header class="page-head">
          <h1>{{ data.horse.name }}: the road home</h1>
          <p class="facts">
            <template v-if="last">
              {{ longDate(last.on ?? '') }}{{ last.ridden ? ', ridden' : ', in hand' }}.
              {{ count(data.list.length, 'outing', 'outings') }} so far.
            </template>
            <template v-else>Worked in hand, away from the yard and slowly back.</template>
          </p>
          <div class="acts">
            <RouterLink v-if="data.open_session" :to="`/arena/${data.open_session}/walk`" class="button"
              >Go on walking</RouterLink
            >
            <RouterLink v-else :to="`/outings/${id}/plan`" class="button">Plan the next</RouterLink>
          </div>
        </header>
        <div class="sides">
          <section class="stack">
            <template v-if="last">
              <RoadLine
                :stops="(last.stops ?? []).map((s) => ({ share: s.share, stood: s.stood, n: s.n }))"
                :ahead="[]"
                :label="`The road of the newest outing: ${count((last.stops ?? []).length, 'stop', 'stops')}, ${last.broken} broke. The yard is at the left.`"
              />
              <h2>How far it is at ease, day by day</h2>
              <p v-if="data.list.length === 1" class="quiet">One day says little.</p>
              <EaseChart :list="data.list" />
            </template>
            <template v-if="data.spots.length">
              <h2>Named spots</h2>
              <table>
                <thead>
                  <tr>
                    <th scope="col">Spot</th>
                    <th scope="col">Going</th>
                    <th scope="col">Tried to turn, pass by pass</th>
                  </tr>
                </thead>
                <tbody>
                  <tr v-for="s in data.spots" :key="s.name + s.heading">
                    <th scope="row">{{ s.name }}</th>
                    <td>{{ s.heading || 'not noted' }}</td>
                    <td>{{ s.passes.map((p) => p.tries).join(', ') }}</td>
                  </tr>
                </tbody>
              </table>
            </template>
            <template v-if="data.stopped.length">
              <h2>Stopped on the way</h2>
              <ul class="dots">
                <li v-for="s in data.stopped" :key="s.what + s.heading">
                  {{ s.what }}{{ s.heading ? `, heading ${s.heading}` : '' }}: {{ s.per_ten }} in ten minutes, on
                  {{ dayMonth(s.on) }}
                </li>
              </ul>
            </template>
            <details v-if="data.list.length">
              <summary>The same as a table</summary>
              <div class="wide">
                <table>
                  <thead>
                    <tr>
                      <th scope="col">Day</th>
                      <th scope="col">Out</th>
                      <th scope="col">Home</th>
                      <th scope="col">Ratio</th>
                      <th scope="col">Stops</th>
                      <th scope="col">Broke</th>
                      <th scope="col">Longest stand</th>
                      <th scope="col">At ease to</th>
                    </tr>
                  </thead>
                  <tbody>
                    <tr v-for="(o, i) in data.list" :key="i">
                      <th scope="row">{{ dayMonth(o.on ?? '') }}</th>
                      <td>{{ minutes(o.out) }}</td>
                      <td>{{ minutes(o.home) }}</td>
                      <td>{{ o.ratio ? o.ratio.toFixed(2) : 'not finished' }}</td>
                      <td>{{ (o.stops ?? []).length }}</td>
                      <td>{{ o.broken }}</td>
                      <td>{{ minutes(o.longest) }}</td>
                      <td>{{ o.comfort ? distance(o.comfort) : 'not yet' }}</td>
                    </tr>
                  </tbody>
                </table>
              </div>
            </details>
          </section>
          <aside class="stack">
            <p class="lead">{{ headline }}</p>
            <p v-if="data.next">{{ data.next.why.text }}</p>
            <dl v-if="last && first" class="numbers">
              <div>
                <dt>Out, home</dt>
                <dd>{{ minutes(last.out) }}, {{ minutes(last.home) }}</dd>
              </div>
              <div>
                <dt>Home to out</dt>
                <dd>{{ last.ratio ? last.ratio.toFixed(2) : 'not finished' }} <small>wanted 2</small></dd>
              </div>
              <div>
                <dt>Longest stand</dt>
                <dd>{{ minutes(last.longest) }}</dd>
              </div>
              <div>
                <dt>First fidget after</dt>
                <dd>
                  {{ last.first_fidget === undefined ? 'none' : `${Math.round(last.first_fidget)} s` }}
                  <small v-if="first !== last && first.first_fidget !== undefined"
                    >first day {{ Math.round(first.first_fidget) }}</small
                  >
                </dd>
              </div>
              <div>
                <dt>At ease to</dt>
                <dd>{{ last.comfort ? distance(last.comfort) : 'not yet' }}</dd>
              </div>
            </dl>
            <section>
              <h2>Before it is ridden home</h2>
              <p class="marks" aria-hidden="true">
                <i v-for="(there, i) in marks(data.riding.days, data.riding.of)" :key="i" :class="{ there }"></i>
                <i
                  v-for="(there, i) in marks(data.riding.stood, data.riding.of_two)"
                  :key="`s${i}`"
                  :class="{ there, second: i === 0 }"
                ></i>
              </p>
              <p>{{ data.riding.says.text }}</p>
            </section>
            <p v-if="data.balance.warns" class="strong">{{ data.balance.warns.text }}</p>
          </aside>
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(240px, 300px);
  gap: var(--gap-4);
}
h2 {
  font-size: var(--part);
}
.numbers {
  margin: 0;
  border-top: var(--rule);
}
.numbers div {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-2);
  padding: var(--gap-1) 0;
  border-bottom: var(--line);
}
.numbers dd {
  margin: 0;
  font: 700 1.15rem/1.2 var(--font-head);
}
.numbers small {
  font: 400 var(--step-0) var(--font-ui);
}
.marks {
  display: flex;
  gap: 8px;
}
.marks i {
  width: 16px;
  height: 34px;
  border: 2px dashed var(--ink-2);
}
.marks i.there {
  border: 2px solid var(--ink-1);
  background: var(--pasture);
}
.marks i.second {
  margin-left: 16px;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  padding: var(--gap-1) var(--gap-3) var(--gap-1) 0;
  border-top: var(--line);
}
.wide {
  overflow-x: auto;
}
@media (max-width: 820px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
  aside {
    order: -1;
  }
}
</style>
