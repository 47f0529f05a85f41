<script setup lang="ts">
// One plank, or a piece of one, drawn at the origin.
const {
  state,
  width,
  height,
  small = false,
  pale = false,
  blank = false,
} = defineProps<{
  state: string
  width: number
  height: number
  small?: boolean
  /** Beyond the goal. */
  pale?: boolean
  /** The board alone: of a method, not of a horse. */
  blank?: boolean
}>()
</script>

<template>
  <g :class="[state, { pale }]">
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
      <circle v-if="state === 'tried' && !blank" :cx="width / 2" :cy="height / 2" :r="small ? 2 : 3.2" class="dot" />
      <template v-if="state === 'kept'">
        <circle :cx="Math.min(small ? 4 : 9, width * 0.25)" :cy="height / 2" :r="small ? 1.5 : 2.6" class="bolt" />
        <circle :cx="width - Math.min(small ? 4 : 9, width * 0.25)" :cy="height / 2" :r="small ? 1.5 : 2.6" class="bolt" />
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
  stroke: var(--ink-2);
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
.pale .board,
.pale .level {
  fill: none;
  stroke: var(--ivory-3);
  stroke-dasharray: none;
}
.pale .bolt,
.pale .dot,
.pale .bar {
  fill: none;
  stroke: none;
}
@media (forced-colors: active) {
  .board {
    stroke: CanvasText;
  }
  .met .board,
  .kept .board,
  .tolerated .level,
  .tried .dot {
    fill: CanvasText;
  }
  .kept .bolt {
    fill: Canvas;
  }
  .blocked .bar {
    stroke: CanvasText;
  }
}
@media print {
  .board,
  .level,
  .bolt {
    print-color-adjust: exact;
  }
}
</style>
