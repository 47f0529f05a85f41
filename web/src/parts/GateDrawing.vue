<script setup lang="ts">
// A yard gate: tied shut while something is forbidden, open where nothing is, and
// dashed where nobody looked.
const { state } = defineProps<{ state: string }>()
const bars = [14, 27, 40, 53, 66]
</script>

<template>
  <svg
    viewBox="0 0 154 84"
    class="yard-gate"
    :class="`is-${state.replaceAll(' ', '-')}`"
    role="img"
    :aria-label="`The gate is ${state}`"
  >
    <path d="M4 2H14V82H4ZM142 2H152V82H142Z" class="post" />
    <g v-if="state === 'open'" class="leaf">
      <path v-for="y in bars" :key="y" :d="`M15 ${y}L58 ${y - 8 + (y - 40) * 0.25}`" class="rail" />
      <path d="M58 -2V64M16 72L57 6" class="rail" />
    </g>
    <g v-else class="leaf">
      <path v-for="y in bars" :key="y" :d="`M15 ${y}H141`" class="rail" />
      <path d="M18 68L138 14" class="rail" />
      <template v-if="state === 'tied'">
        <path d="M131 33l22 -6M131 41l22 -6M132 49l22 -7" class="tie" />
        <path d="M143 46q-9 12 -2 30M147 46q6 10 1 26" class="tie" />
      </template>
    </g>
  </svg>
</template>

<style scoped>
.yard-gate {
  display: block;
  width: 154px;
  height: 84px;
  flex: none;
}
.post {
  fill: var(--ink-1);
}
.rail {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 5.5;
}
.rail + .rail {
  stroke-width: 5.5;
}
.is-not-looked-at .rail {
  stroke: var(--ink-2);
  stroke-width: 2;
  stroke-dasharray: 6 5;
}
.tie {
  fill: none;
  stroke: var(--rust);
  stroke-width: 4;
  stroke-linecap: round;
}
@media (forced-colors: active) {
  .post {
    fill: CanvasText;
  }
  .rail,
  .tie {
    stroke: CanvasText;
  }
}
</style>
