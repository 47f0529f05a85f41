<script setup lang="ts">
// Time on the problem as a length of rope to scale: the longer of the two winds three
// times over the page.
import { computed } from 'vue'
import { longDate } from '../dates'
import type { HorsePage } from './client'

const { time } = defineProps<{ time: NonNullable<HorsePage['time']> }>()

const wide = 340
const turns = 3
const whole = wide * turns + 26 * Math.PI
const rope = `M14 14H${wide}a13 13 0 0 1 0 26H14a13 13 0 0 0 0 26H${wide}`
const longest = computed(() => Math.max(time.before, time.now, 1))
const part = (seconds: number) => Math.max((seconds / longest.value) * whole, 12)
const ropes = computed(() =>
  [time.before, time.now].map((seconds) => ({ long: part(seconds), rows: Math.min(Math.ceil(part(seconds) / wide), turns) })),
)
</script>

<template>
  <section>
    <h2>Until the goal is reached</h2>
    <template v-for="(r, i) in ropes" :key="i">
      <p class="small">{{ i === 0 ? 'the first day' : longDate(time.on) }}</p>
      <svg :viewBox="`-8 0 380 ${r.rows * 26 + 4}`" aria-hidden="true">
        <path :d="rope" :stroke-dasharray="`${r.long} ${whole * 2}`" />
      </svg>
    </template>
    <p>{{ time.says }}</p>
  </section>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 480px;
}
path {
  fill: none;
  stroke: var(--leather);
  stroke-width: 11;
}
</style>
