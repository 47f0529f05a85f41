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
const length = computed(() => [part(time.before), part(time.now)])
</script>

<template>
  <section>
    <h2>Until the goal is reached</h2>
    <svg v-for="(l, i) in length" :key="i" viewBox="0 0 372 80" aria-hidden="true" :class="{ short: l <= wide }">
      <path :d="rope" :stroke-dasharray="`${l} ${whole * 2}`" />
    </svg>
    <p>{{ time.says }}</p>
    <p class="small">The upper rope is the first day, the lower {{ longDate(time.on) }}.</p>
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
