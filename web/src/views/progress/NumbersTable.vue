<script setup lang="ts">
// All of it as tables: every line with its numbers, session by session.
import type { Schemas } from '../../api/types'
import { dayMonth, sideWord } from '../../words'
import { said } from './trendRow'

const { numbers } = defineProps<{ numbers: Schemas['ProgressNumbers'] }>()
const day = (x: number) => dayMonth(numbers.heaps[x - 1]?.on ?? '')
</script>

<template>
  <div class="tables">
    <h2 class="lead">All as tables</h2>
    <div class="wide">
      <table>
        <caption>
          The median of each session that noted it
        </caption>
        <thead>
          <tr>
            <th scope="col">ask</th>
            <th scope="col">measure</th>
            <th scope="col">says</th>
            <th scope="col">session by session</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in numbers.feel.lines" :key="l.name.text + l.measure">
            <th scope="row">{{ l.name.text }}</th>
            <td>{{ l.measure }}</td>
            <td>{{ l.says.text }}</td>
            <td>
              <span v-for="p in l.trend.points" :key="p.x" class="point"
                >{{ day(p.x) }} <b>{{ said(l, p.y) }}</b></span
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="numbers.sides.pairs.length" class="wide">
      <table>
        <caption>
          The two sides, level on the first day that asked both and now
        </caption>
        <thead>
          <tr>
            <th scope="col">step</th>
            <th scope="col">{{ sideWord('near') }}</th>
            <th scope="col">{{ sideWord('off') }}</th>
            <th scope="col">how sure</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in numbers.sides.pairs" :key="p.step">
            <th scope="row">{{ p.name }}</th>
            <td>{{ p.near.first }} → {{ p.near.now }}</td>
            <td>{{ p.off.first }} → {{ p.off.now }}</td>
            <td>{{ p.how }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>

<style scoped>
.tables {
  display: grid;
  gap: var(--gap-4);
  padding: var(--gap-3) 0;
}
.wide {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
caption {
  text-align: left;
  font-weight: 600;
}
th,
td {
  text-align: left;
  vertical-align: top;
  border-top: var(--line);
  padding: var(--gap-1) var(--gap-3) var(--gap-1) 0;
}
.point {
  display: inline-block;
  margin-right: var(--gap-3);
  white-space: nowrap;
}
</style>
