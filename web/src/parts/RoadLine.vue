<script setup lang="ts">
// The road home as a line: the yard at the left in every picture of it, the turning
// point at the right, the stops where they were made, broken ones broken.
import { computed } from 'vue'

interface Stop {
  share: number
  stood: boolean
  n: number
}
const { stops, ahead, at, standing, label } = defineProps<{
  /** Those that were made. */
  stops: Stop[]
  /** How far along those lie that are still planned, from the yard, 0 to 1. */
  ahead: number[]
  /** Where the horse is, from the yard, 0 to 1; nothing where it is home. */
  at?: number
  /** Number of the stop that it stands at. */
  standing?: number
  /** What is drawn, in words. */
  label: string
}>()

const width = 400
const x = (share: number) => 34 + share * (width - 60)
const y = (share: number) => 34 + 9 * Math.sin(share * 9)
const path = computed(
  () => 'M' + Array.from({ length: 41 }, (_, i) => `${x(i / 40).toFixed(1)} ${y(i / 40).toFixed(1)}`).join('L'),
)
</script>

<template>
  <svg class="road" :viewBox="`0 0 ${width} 68`" role="img" :aria-label="label">
    <path :d="path" class="edge" />
    <path :d="path" class="way" />
    <path d="M6 50V34L17 24L28 34V50Z" class="house" />
    <circle v-for="(s, i) in ahead" :key="`a${i}`" :cx="x(s)" :cy="y(s)" r="5" class="ahead" />
    <template v-for="s in stops" :key="s.n">
      <circle v-if="s.stood" :cx="x(s.share)" :cy="y(s.share)" r="7" class="stood" />
      <path v-else :d="`M${x(s.share) - 6} ${y(s.share) - 6}l12 12M${x(s.share) + 6} ${y(s.share) - 6}l-12 12`" class="broke" />
    </template>
    <template v-if="at !== undefined">
      <circle :cx="x(at)" :cy="y(at)" r="13" class="here" />
      <text v-if="standing" :x="x(at)" :y="y(at) + 5" class="number">{{ standing }}</text>
    </template>
  </svg>
</template>

<style scoped>
.road {
  width: 100%;
  display: block;
}
.edge,
.way {
  fill: none;
  stroke: var(--arena-ink);
  stroke-width: 15;
}
.way {
  stroke: var(--ivory-2);
  stroke-width: 11;
}
.house {
  fill: var(--ivory-0);
  stroke: var(--arena-ink);
  stroke-width: 2.5;
}
.ahead {
  fill: var(--ivory-0);
  stroke: var(--arena-ink);
  stroke-width: 2;
}
.stood {
  fill: var(--arena-ink);
}
.broke {
  stroke: var(--rust);
  stroke-width: 4;
}
.here {
  fill: var(--ivory-0);
  stroke: var(--arena-ink);
  stroke-width: 3;
}
.number {
  text-anchor: middle;
  font: 700 15px var(--font-head);
}
</style>
