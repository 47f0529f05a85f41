<script setup lang="ts">
// A piece of the day's road beside one stop: its number, and before it a lay-by as
// long as the minutes to spare.
import { computed } from 'vue'

const { n, spare, late, done } = defineProps<{ n: number; spare: number; late: number; done: boolean }>()
const bend = computed(() => (n % 2 ? 12 : -12))
const path = computed(() => `M30 0C30 35 ${30 + bend.value} 25 ${30 + bend.value} 50S30 65 30 100`)
/** Half an hour to spare fills the lay-by. */
const long = computed(() => Math.min(30, spare))
</script>

<template>
  <div class="road" :class="{ done }" aria-hidden="true">
    <svg viewBox="0 0 60 100" preserveAspectRatio="none">
      <path :d="path" class="edge" />
      <path :d="path" class="way" />
      <path :d="path" class="middle" />
    </svg>
    <span v-if="long && !late" class="layby" :style="{ '--long': `${8 + 1.4 * long}px` }"></span>
    <span class="number">{{ n }}</span>
  </div>
</template>

<style scoped>
.road {
  position: relative;
  width: 60px;
  min-height: 100%;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
path {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.edge {
  stroke: var(--ink-1);
  stroke-width: 19px;
}
.way {
  stroke: var(--ivory-2);
  stroke-width: 15px;
}
.middle {
  stroke: var(--ink-2);
  stroke-width: 1.5px;
  stroke-dasharray: 6 7;
}
.number {
  position: absolute;
  left: 50%;
  top: 46px;
  width: 36px;
  height: 36px;
  translate: -50% 0;
  display: grid;
  place-items: center;
  border: 2px solid var(--ink-1);
  border-radius: 50%;
  background: var(--ivory-0);
  font: 700 1.05rem/1 var(--font-head);
}
.done .number {
  background: var(--ink-1);
  color: var(--ivory-0);
}
.layby {
  position: absolute;
  left: 4px;
  top: 4px;
  width: 12px;
  height: var(--long);
  border: 2px solid var(--ink-1);
  border-radius: 8px;
  background: var(--ivory-0);
}
</style>
