<script setup lang="ts">
// A rope: a span of time. From one in ten to nine in ten, the ring at half.
const { from, to, ring, y, old = false } = defineProps<{ from: number; to: number; ring: number; y: number; old?: boolean }>()
</script>

<template>
  <g :class="{ old }">
    <path :d="`M${from} ${y}H${Math.max(to, from + 4)}`" class="rope" />
    <path :d="`M${from} ${y}H${Math.max(to, from + 4)}`" class="lay" />
    <circle :cx="ring" :cy="y" r="6.5" class="ring" />
  </g>
</template>

<style scoped>
.rope {
  stroke: var(--leather);
  stroke-width: 5;
}
.lay {
  stroke: var(--ivory-0);
  stroke-width: 5;
  stroke-dasharray: 1.2 5.8;
}
.ring {
  fill: var(--ivory-0);
  stroke: var(--leather);
  stroke-width: 3;
}
.old {
  opacity: 0.45;
}
@media (forced-colors: active) {
  .rope,
  .ring {
    stroke: CanvasText;
  }
}
</style>
