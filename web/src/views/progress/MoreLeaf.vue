<script setup lang="ts">
// The other measures, a row each and a column for each session; and the same ask by
// different people, side by side.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { dayMonth } from '../../words'

const { numbers } = defineProps<{ numbers: Schemas['ProgressNumbers'] }>()

const most = 8
const sessions = computed(() => numbers.heaps.slice(-most))
const rows = computed(() => numbers.more.filter((m) => sessions.value.some((s) => cell(m, s.session))))
const kinds = [
  { key: 'people', title: 'People' },
  { key: 'tack', title: 'Tack' },
  { key: 'places', title: 'Places' },
  { key: 'company', title: 'Company' },
  { key: 'distractions', title: 'Distractions' },
] as const
const cell = (m: Schemas['ProgressMore'], session: string) => m.cells.find((c) => c.session === session)?.says.text ?? ''
</script>

<template>
  <section class="more">
    <h2 class="lead">Other measures</h2>
    <p v-if="numbers.time">{{ numbers.time.says.text }}</p>
    <p v-if="rows.length === 0" class="quiet">None of them was noted. Choose one task: some are told of one task alone.</p>
    <div v-else class="wide">
      <table>
        <caption class="quiet">
          The newest
          {{
            sessions.length
          }}
          sessions. An empty field was not noted. Some measures are told of one task alone: choose it above.
        </caption>
        <thead>
          <tr>
            <th scope="col">Measure</th>
            <th v-for="s in sessions" :key="s.session" scope="col">{{ dayMonth(s.on) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="m in rows" :key="m.name.text">
            <th scope="row">
              {{ m.name.text }} <span class="quiet small">{{ m.says.text }}</span>
            </th>
            <td v-for="s in sessions" :key="s.session">{{ cell(m, s.session) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet">{{ numbers.cycle.text }}</p>
    <template v-if="numbers.transfer.length">
      <h2 class="lead">From one side to the other</h2>
      <p v-for="t in numbers.transfer" :key="t.says.text">{{ t.says.text }}</p>
    </template>
    <template v-if="numbers.spread.length">
      <h2 class="lead">Spread</h2>
      <div class="wide">
        <table>
          <caption class="quiet">
            With how many different people and under how many different things each task was asked. An empty field was not written
            down.
          </caption>
          <thead>
            <tr>
              <th scope="col">Task</th>
              <th v-for="k in kinds" :key="k.key" scope="col">{{ k.title }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in numbers.spread" :key="s.name">
              <th scope="row">{{ s.name }}</th>
              <td v-for="k in kinds" :key="k.key">{{ s[k.key] || '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <template v-if="numbers.beside.length">
      <h2 class="lead">Side by side</h2>
      <div class="wide">
        <table>
          <caption class="quiet">
            The same task by different people, or in different tack. The share lies eight times of ten between the two ends.
          </caption>
          <thead>
            <tr>
              <th scope="col">Task</th>
              <th scope="col">Who, or in what</th>
              <th scope="col">Soft answers</th>
              <th scope="col">Between</th>
              <th scope="col">Feel it took</th>
            </tr>
          </thead>
          <tbody v-for="(b, n) in numbers.beside" :key="n">
            <tr v-for="(p, i) in b.by" :key="p.person ?? p.name">
              <th v-if="i === 0" scope="rowgroup" :rowspan="b.by.length">{{ b.name.text }}</th>
              <td>{{ p.name || 'somebody' }}</td>
              <td>{{ p.soft.some }} of {{ p.soft.of }}</td>
              <td>{{ Math.round(p.soft.low * 100) }} and {{ Math.round(p.soft.high * 100) }} of 100</td>
              <td>{{ p.feel.text }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </section>
</template>

<style scoped>
.more {
  display: grid;
  gap: var(--gap-3);
  padding: var(--gap-3) 0;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
caption {
  text-align: left;
  padding-bottom: var(--gap-1);
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: var(--gap-1) var(--gap-3) var(--gap-1) 0;
  border-top: var(--line);
}
th .small {
  display: block;
  font-weight: 400;
}
</style>
