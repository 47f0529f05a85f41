<script setup lang="ts">
// What the taps on clips say of the gait, beside what the rider calls it.
import type { Schemas } from '../../api/types'
import { shortDate } from '../../words'

const { timed } = defineProps<{ timed: Schemas['TimedGait'][] }>()
</script>

<template>
  <ul v-if="timed.length" class="timed" aria-label="Timed on clips">
    <li v-for="t in timed.slice(0, 3)" :key="t.clip">
      Timed on the clip of <RouterLink :to="`/clips/${t.clip}`">{{ shortDate(t.on) }}</RouterLink>: {{ t.says.text }}
      <template v-if="t.rider">The rider calls it {{ t.rider }}.</template>
      <b v-if="t.vet">{{ t.vet.text }}</b>
    </li>
  </ul>
</template>

<style scoped>
.timed {
  margin: 0;
  padding: 0 0 var(--gap-2);
  list-style: none;
}
</style>
