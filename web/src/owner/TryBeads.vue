<script setup lang="ts">
// Tries that went well, as beads: before the work began, and in the newest visit.
import { computed } from 'vue'
import { inWords } from '../dates'
import type { HorsePage } from './client'

const { tries } = defineProps<{ tries: NonNullable<HorsePage['tries']> }>()

const most = 12
const rows = computed(() =>
  [tries.before, tries.now].map(([good = 0, all = 0]) => {
    // More than fit on the page are drawn in the same proportion.
    const n = Math.min(all, most)
    const full = all > most ? Math.round((good / all) * n) : good
    return { good, all, beads: Array.from({ length: n }, (_, i) => i < full) }
  }),
)
const says = (i: number) => `${inWords(rows.value[i]?.good ?? 0)} of ${inWords(rows.value[i]?.all ?? 0)}`
</script>

<template>
  <section>
    <h2>Tries that went well</h2>
    <svg viewBox="0 0 380 66" aria-hidden="true">
      <g v-for="(r, y) in rows" :key="y" :transform="`translate(0 ${y * 34})`">
        <path class="rope" :d="`M0 15H${r.beads.length * 31 + 6}`" />
        <template v-for="(good, x) in r.beads" :key="x">
          <circle v-if="good" class="good" :cx="x * 31 + 18" cy="15" r="11" />
          <path v-else class="poor" :d="`M${x * 31 + 7} 6h22l-11 19z`" />
        </template>
      </g>
    </svg>
    <p>
      before the work, {{ says(0) }}; at the last visit <b>{{ says(1) }}</b>
    </p>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 460px;
}
.rope {
  stroke: var(--leather);
  stroke-width: 3;
}
.good {
  fill: var(--pasture);
  stroke: var(--arena-ink);
  stroke-width: 2;
}
.poor {
  fill: var(--ivory-0);
  stroke: var(--arena-ink);
  stroke-width: 2.4;
}
</style>
