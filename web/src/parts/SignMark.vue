<script setup lang="ts">
// The sign beside a margin note: what kind of act it asks for.
const { sign } = defineProps<{ sign: string }>()
const drawn: Record<string, string> = {
  alarm: 'M10 2L18.5 17.5H1.5ZM10 7.5V12M10 14V15.4',
  ring: 'M4 2l3 0 1.5 4.5 -2 1.5q1.5 4 5 5.5l1.5 -2 4.5 1.5v3q-1 2.5 -4 2.3Q3 16 1.8 6 2 3 4 2Z',
  look: 'M1 10Q10 1 19 10Q10 19 1 10ZM10 7.2a2.8 2.8 0 1 0 .01 0',
  down: 'M18 3h-4v4h-4v4H6v4M2 12l4 4 3.5 -3.5',
  fork: 'M10 18V11L4 3M10 11L16 3M3 7V2.4H7.6M17 7V2.4H12.4',
  begin: 'M1 10h3M6 10h2M12 10h2M16 10h3M10 6.5a3.5 3.5 0 1 0 .01 0',
  rope: 'M1 13q4 -7 7 0t6 0 5 -3',
}
</script>

<template>
  <svg viewBox="0 0 20 20" class="sign" aria-hidden="true">
    <path :d="drawn[sign] ?? drawn.look" />
  </svg>
</template>

<style scoped>
.sign {
  width: 20px;
  height: 20px;
  flex: none;
}
path {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 1.9;
  stroke-linejoin: round;
  stroke-linecap: round;
}
@media (forced-colors: active) {
  path {
    stroke: CanvasText;
  }
}
</style>
