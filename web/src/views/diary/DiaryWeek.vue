<script setup lang="ts">
// One leaf: a week, with the practice at home as a rope down its margin.
import type { Schemas } from '../../api/types'
import DiaryDay from './DiaryDay.vue'
import { spanOf, weekName } from '../../parts/days'

type Visit = Schemas['Booked']

const { days, today } = defineProps<{ days: Schemas['Day'][]; today: string }>()
const emit = defineEmits<{ open: [visit: Visit]; ink: [visit: Visit]; move: [visit: Visit, on: string]; put: [on: string] }>()
</script>

<template>
  <section class="leaf">
    <h2>
      {{ weekName(days[0]?.on ?? '') }} <span class="quiet">{{ spanOf(days[0]?.on ?? '') }}</span>
    </h2>
    <ol>
      <DiaryDay
        v-for="d in days"
        :key="d.on"
        :day="d"
        :today="today"
        @open="emit('open', $event)"
        @ink="emit('ink', $event)"
        @move="(v, on) => emit('move', v, on)"
        @put="emit('put', d.on)"
      />
    </ol>
  </section>
</template>

<style scoped>
.leaf h2 {
  font-size: var(--part);
  padding-bottom: var(--gap-1);
  border-bottom: var(--rule);
}
.leaf h2 .quiet {
  font: 400 var(--step-1) var(--font-ui);
}
</style>
