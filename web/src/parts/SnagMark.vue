<script setup lang="ts">
// The gap that stops the work, drawn: a tied rail, a barred plank, a missing half of
// a pier, an answer that has not come, a rope let down, an eye that did not look.
import KnotShape from './KnotShape.vue'

const { kind } = defineProps<{ kind: string }>()
</script>

<template>
  <svg viewBox="0 0 28 34" class="snag" aria-hidden="true">
    <g v-if="kind === 'forbidden'">
      <path d="M3 4V32M25 4V32" class="ink thick" />
      <path d="M3 10H25M3 18H25M3 26H25M4 26L24 10" class="ink" />
      <path d="M21 16l7 -2M21 21l7 -2M24 20q-4 6 0 12" class="rust" />
    </g>
    <g v-else-if="kind === 'barred'">
      <path d="M1 11H27V23H1Z" class="ink well" />
      <path d="M4 20L24 14" class="ink thick" />
    </g>
    <g v-else-if="kind === 'foundation'">
      <path d="M5 2H13V32H1Z" class="pasture" />
      <path d="M16 2H23L27 32H16Z" class="rust dashed" />
    </g>
    <g v-else-if="kind === 'unanswered'">
      <path d="M1 5H27V23H12L6 30V23H1Z" class="ink dashed" />
      <path d="M14 10q4 0 4 3t-4 4v1M14 20.4v.2" class="ink" />
    </g>
    <g v-else-if="kind === 'clearance'">
      <path d="M1 10q5 -5 9 0t9 0" class="rope" />
      <path d="M19 10q4 -3 8 1" class="rope dashed" />
      <KnotShape v-for="n in 3" :key="n" state="dashed" :x="n * 9 - 4" :y="25" />
    </g>
    <path v-else d="M1 16Q14 3 27 16Q14 29 1 16Z" class="ink dashed" />
  </svg>
</template>

<style scoped>
.snag {
  width: 28px;
  height: 34px;
  flex: none;
}
path {
  fill: none;
  stroke-width: 2;
  stroke-linecap: round;
}
.ink {
  stroke: var(--ink-2);
}
.thick {
  stroke: var(--ink-1);
  stroke-width: 3.5;
}
.well {
  fill: var(--ivory-2);
}
.rust {
  stroke: var(--rust);
  stroke-width: 2.5;
}
.pasture {
  stroke: var(--pasture-deep);
}
.rope {
  stroke: var(--leather);
  stroke-width: 3.5;
}
.dashed {
  stroke-dasharray: 4 3;
}
</style>
