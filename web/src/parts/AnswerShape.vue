<script setup lang="ts">
// One of the five answers as its shape, always the same: open triangle down,
// ring with a dot, half-filled ring, disc, four-pointed star.
const { answer, ink = false } = defineProps<{ answer: string; ink?: boolean }>()
</script>

<template>
  <svg viewBox="0 0 48 48" class="shape" :class="[answer, { ink }]" aria-hidden="true">
    <template v-if="answer === 'refused'">
      <path d="M6 8h36l-18 31z" class="paper" />
      <path d="M14 12.5h20l-10 17z" class="fill" />
    </template>
    <template v-else-if="answer === 'try'">
      <circle cx="24" cy="24" r="17" class="paper" />
      <circle cx="24" cy="24" r="5.5" class="dot" />
    </template>
    <template v-else-if="answer === 'tolerated'">
      <circle cx="24" cy="24" r="17" class="paper" />
      <path d="M8.5 24a15.5 15.5 0 0 0 31 0z" class="fill" />
    </template>
    <circle v-else-if="answer === 'accepted'" cx="24" cy="24" r="17" class="fill edge" />
    <path v-else d="M24 2l7 15 15 7-15 7-7 15-7-15-15-7 15-7z" class="fill edge" />
  </svg>
</template>

<style scoped>
.shape {
  --colour: var(--ink-1);
  overflow: visible;
}
svg.shape:not([width]) {
  width: 1.4em;
  height: 1.4em;
}
.refused {
  --colour: var(--rust);
}
.tolerated {
  --colour: var(--ochre);
}
.accepted {
  --colour: var(--pasture);
}
.offered {
  --colour: var(--pasture-deep);
}
.paper {
  fill: var(--ivory-0);
  stroke: var(--colour);
  stroke-width: 4;
}
.fill {
  fill: var(--colour);
}
.refused .fill {
  fill: none;
}
.dot {
  fill: var(--colour);
}
.ink .paper,
.ink .edge {
  stroke: var(--arena-ink);
  stroke-width: 3;
}
.ink.refused .fill {
  fill: var(--colour);
}
.ink .dot {
  fill: var(--arena-ink);
}
</style>
