<script setup lang="ts">
// The flag: the goal, or the date. It means that wherever it is drawn.
const { x, top, foot, wide = 24 } = defineProps<{ x: number; top: number; foot: number; wide?: number }>()
</script>

<template>
  <g>
    <path :d="`M${x} ${top}V${foot}`" class="pole" />
    <path :d="`M${x} ${top}h${wide}l${-wide * 0.28} ${wide * 0.31}l${wide * 0.28} ${wide * 0.31}h${-wide}z`" class="cloth" />
  </g>
</template>

<style scoped>
.pole {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 2.4;
}
.cloth {
  fill: var(--ink-1);
}
@media (forced-colors: active) {
  .pole {
    stroke: CanvasText;
  }
  .cloth {
    fill: CanvasText;
  }
}
</style>
