<script setup lang="ts">
// Five weeks of rope from today, with the date as a flag on it.
import { dayNumber as day } from '../../parts/days'
import FlagPost from '../../parts/FlagPost.vue'
import { dayMonth } from '../../words'

const { today, by = '' } = defineProps<{ today: string; by?: string }>()

const wide = 150
const weeks = 5
const x = (date: string) => 4 + ((day(date) - day(today)) / (7 * weeks)) * (wide - 10)
const within = () => !!by && day(by) >= day(today) && day(by) <= day(today) + 7 * weeks
</script>

<template>
  <svg
    :viewBox="`0 0 ${wide} 34`"
    :width="wide"
    height="34"
    role="img"
    :aria-label="by ? `needed by ${dayMonth(by)}` : 'no date'"
  >
    <path :d="`M4 22H${wide - 4}`" class="rope" />
    <path v-for="w in weeks" :key="w" :d="`M${4 + (w * (wide - 10)) / weeks} 18v8`" class="rope" />
    <FlagPost v-if="within()" :x="x(by)" :top="3" :foot="31" :wide="13" />
    <text v-else-if="by" :x="wide - 2" y="14" class="far">{{ dayMonth(by) }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
.rope {
  stroke: var(--ivory-3);
  stroke-width: 1.6;
}
.far {
  font-size: var(--step-0);
  text-anchor: end;
  fill: var(--ink-2);
}
@media (forced-colors: active) {
  .rope {
    stroke: CanvasText;
  }
}
</style>
