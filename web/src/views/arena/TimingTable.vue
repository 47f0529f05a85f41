<script setup lang="ts">
// How the releases and beginnings were, for each who held the rope.
import type { Schemas } from '../../api/types'

const { timings, names } = defineProps<{ timings: Schemas['ArenaTiming'][]; names: Record<string, string> }>()
</script>

<template>
  <table v-if="timings.length" class="plain-table">
    <thead>
      <tr>
        <th>Rope</th>
        <th>on the try</th>
        <th>late</th>
        <th>wrong moment</th>
        <th>begun at 1</th>
        <th>try to release</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="t in timings" :key="t.handler">
        <th>{{ names[t.handler] ?? 'not said' }}</th>
        <td>{{ t.on_the_try }} of {{ t.releases }}</td>
        <td>{{ t.late }}</td>
        <td>{{ t.wrong }}</td>
        <td>{{ t.starts ? `${t.from_one} of ${t.starts}` : 'not noted' }}</td>
        <td>{{ t.delay ? `${t.delay.toFixed(1)} s` : 'not timed' }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--step-1);
}
th,
td {
  text-align: left;
  padding: var(--gap-1) var(--gap-2) var(--gap-1) 0;
  border-bottom: 1px solid var(--ivory-3);
}
</style>
