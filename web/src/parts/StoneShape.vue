<script setup lang="ts">
// A stone: evidence. Filled where it was seen, hatched on video, dashed where it
// was told; on record it is filled with a square foot. Its size is what it tells.
const { r, source, against = false } = defineProps<{ r: number; source: string; against?: boolean }>()
const shape = `M${-r} 0V${-r * 0.7}Q${-r} ${-r * 1.75} 0 ${-r * 1.75}T${r} ${-r * 0.7}V0Z`
</script>

<template>
  <path :d="shape" class="stone" :class="[source.replaceAll(' ', '-'), { against }]" />
</template>

<style scoped>
.stone {
  fill: var(--leather);
  stroke: var(--ink-1);
  stroke-width: 1;
}
.stone.against {
  fill: var(--slate);
}
.stone.video {
  fill: url(#stone-hatch);
  stroke-width: 1.4;
}
.stone.told {
  fill: var(--ivory-0);
  stroke: var(--ink-2);
  stroke-width: 1.6;
  stroke-dasharray: 3.4 2.6;
}
.stone.on-record {
  stroke-width: 2.6;
}
@media (forced-colors: active) {
  .stone.seen,
  .stone.on-record {
    fill: CanvasText;
  }
  .stone {
    stroke: CanvasText;
  }
}
</style>
