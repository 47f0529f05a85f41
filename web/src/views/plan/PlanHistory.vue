<script setup lang="ts">
// The plans that were made, with why, and what each had otherwise than the one
// before.
import { shortDate } from '../../words'
import type { PlanView } from './usePlan'

const { view } = defineProps<{ view: PlanView }>()
const day = (ms: number) => shortDate(new Date(ms).toISOString().slice(0, 10))
</script>

<template>
  <section class="sheet stack">
    <h2>Plans made</h2>
    <p v-if="view.made.length === 0" class="quiet">None yet.</p>
    <ul class="plain-list">
      <li v-for="m in view.made" :key="m.number">
        <b>{{ m.number }}.</b> {{ m.reason }} <span class="quiet small">{{ m.by }}, {{ day(m.on) }}</span>
        <ul class="dots">
          <li v-for="(c, i) in m.changes" :key="i" class="small">{{ c.text }}</li>
        </ul>
        <details class="small">
          <summary>The steps it had to do</summary>
          <p>{{ m.steps.join(', ') || 'none' }}</p>
        </details>
      </li>
    </ul>
  </section>
</template>

<style scoped>
summary {
  cursor: pointer;
  min-height: 28px;
}
</style>
