<script setup lang="ts">
// How much is person, tack and horse, as one board sawn in three.
import { computed } from 'vue'
import type { Schemas } from '../api/types'

const { swap } = defineProps<{ swap: Schemas['AssessSwap'] }>()

const parts = computed(() => {
  let from = 0
  return ['person', 'tack', 'horse'].map((name, i) => {
    const share = swap.shares[i] ?? 0
    const part = { name, share, from }
    from += share
    return part
  })
})
</script>

<template>
  <div class="stack">
    <svg
      v-if="parts.some((p) => p.share)"
      viewBox="-1 -1 402 32"
      class="board"
      role="img"
      :aria-label="parts.map((p) => `${p.name} ${p.share} %`).join(', ')"
    >
      <g v-for="p in parts" :key="p.name">
        <rect :x="p.from * 4" y="0" :width="p.share * 4" height="30" :class="p.name" />
      </g>
    </svg>
    <p v-if="parts.some((p) => p.share)" class="strong">{{ parts.map((p) => `${p.name} ${p.share} %`).join(', ') }}</p>
    <ul class="dots">
      <li v-for="s in swap.says" :key="s.key">{{ s.text }}</li>
    </ul>
  </div>
</template>

<style scoped>
.board {
  width: 100%;
  max-width: 560px;
}
rect {
  stroke: var(--ink-1);
  stroke-width: 2;
}
.person {
  fill: var(--slate);
}
.tack {
  fill: var(--ochre);
}
.horse {
  fill: var(--ivory-2);
}
</style>
