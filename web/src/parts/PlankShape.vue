<script setup lang="ts">
// One plank, or a piece of one, drawn at the origin.
const { state, width, height } = defineProps<{ state: string; width: number; height: number }>()
</script>

<template>
  <g :class="state">
    <template v-if="state === 'slipped'">
      <path :d="`M0 0H${width * 0.44}l${-width * 0.1} ${height * 0.5} ${width * 0.12} ${height * 0.5}H0z`" class="board" />
      <path
        :d="`M${width} ${height * 0.22}H${width * 0.58}l${-width * 0.12} ${height * 0.5} ${width * 0.1} ${height * 0.5}H${width}z`"
        class="board"
      />
    </template>
    <template v-else>
      <rect :width="width" :height="height" class="board" />
      <rect v-if="state === 'tolerated'" :y="height / 2" :width="width" :height="height / 2" class="level" />
      <circle v-if="state === 'tried'" :cx="width / 2" :cy="height / 2" r="3.2" class="dot" />
      <template v-if="state === 'kept'">
        <circle :cx="Math.min(7, width * 0.25)" :cy="height / 2" r="2.6" class="bolt" />
        <circle :cx="width - Math.min(7, width * 0.25)" :cy="height / 2" r="2.6" class="bolt" />
      </template>
      <path v-if="state === 'blocked'" :d="`M4 ${height - 4}L${width - 4} 4`" class="bar" />
    </template>
  </g>
</template>

<style scoped>
.board {
  stroke-width: 2;
}
.untried .board {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
}
.tried .board {
  fill: var(--ivory-0);
  stroke: var(--ink-2);
}
.tried .dot {
  fill: var(--ink-2);
}
.tolerated .board {
  fill: var(--ivory-0);
  stroke: var(--ochre);
}
.tolerated .level {
  fill: var(--ochre);
}
.met .board {
  fill: var(--pasture);
  stroke: var(--pasture);
}
.kept .board {
  fill: var(--pasture-deep);
  stroke: var(--pasture-deep);
}
.kept .bolt {
  fill: var(--ivory-0);
}
.slipped .board {
  fill: var(--rust);
  stroke: var(--rust);
  stroke-width: 1;
}
.blocked .board {
  fill: var(--ivory-2);
  stroke: var(--ink-2);
}
.blocked .bar {
  stroke: var(--ink-2);
  stroke-width: 3;
}
@media print {
  .board,
  .level,
  .bolt {
    print-color-adjust: exact;
  }
}
</style>
