<script setup lang="ts">
// A knot: how sure a thing is. Tied where it is sure, an open loop where it is not
// clear, dashed where it is too early to say.
const { state, x = 0, y = 0 } = defineProps<{ state: 'tied' | 'open' | 'dashed'; x?: number; y?: number }>()
</script>

<template>
  <g :transform="`translate(${x} ${y})`" :class="state">
    <circle r="3.6" class="knot" />
    <path v-if="state === 'tied'" d="M-6 0H6" class="through" />
  </g>
</template>

<style scoped>
.knot {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.6;
}
.tied .knot {
  fill: var(--ink-1);
  stroke: var(--ink-1);
}
.dashed .knot {
  stroke-dasharray: 2.4 2;
}
.through {
  stroke: var(--ink-1);
  stroke-width: 1.6;
}
@media (forced-colors: active) {
  .knot,
  .through {
    stroke: CanvasText;
  }
  .tied .knot {
    fill: CanvasText;
  }
}
</style>
