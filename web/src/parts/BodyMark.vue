<script setup lang="ts">
// The state of a body item as a shape: dashed ring, ticked disc, flag, half
// ring, double ring. Form and fill both tell, so that it reads in grey.
const { state } = defineProps<{ state: string }>()
</script>

<template>
  <g class="mark" :class="state.replaceAll(' ', '-')">
    <template v-if="state === 'suspect'">
      <path d="M0 -15L15 12H-15z" class="fill" />
      <path d="M0 -6V4M0 7V9" class="ink" />
    </template>
    <template v-else-if="state === 'in treatment'">
      <circle r="13" class="paper" />
      <path d="M-13 0a13 13 0 0 0 26 0z" class="fill" />
    </template>
    <template v-else-if="state === 'clear' || state === 'cleared'">
      <circle v-if="state === 'cleared'" r="16" class="ring" />
      <circle r="12" class="fill" />
      <path d="M-6 0l4 5 8-9" class="ink" />
    </template>
    <circle v-else r="12" class="none" />
  </g>
</template>

<style scoped>
.fill {
  fill: var(--pasture);
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.suspect .fill {
  fill: var(--rust);
}
.in-treatment .fill {
  fill: var(--ochre);
}
.paper {
  fill: var(--ivory-0);
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.ring {
  fill: var(--ivory-0);
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.ink {
  fill: none;
  stroke: var(--ivory-0);
  stroke-width: 3;
}
.none {
  fill: var(--ivory-0);
  stroke: var(--ink-2);
  stroke-width: 2;
  stroke-dasharray: 5 4;
}
</style>
