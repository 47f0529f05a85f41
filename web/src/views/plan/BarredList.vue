<script setup lang="ts">
// What is barred, by what, and what lifts it; each reason once, with its steps.
import { computed } from 'vue'
import { shortDate } from '../../words'
import type { PlanView } from './usePlan'

const { view } = defineProps<{ view: PlanView }>()

const ladderName = (key: string) => view.now.ways.find((w) => w.ladder === key)?.name ?? key
const barred = computed(() => {
  const list = view.now.items.filter((i) => i.blocked)
  return [...new Set(list.map((i) => i.blocked?.text ?? ''))].map((why) => {
    const held = list.filter((i) => i.blocked?.text === why)
    return {
      why,
      lifts: held[0]?.lifts?.text,
      day: held[0]?.lift,
      names: [...new Set(held.map((i) => i.ladder))].map(
        (l) =>
          `${ladderName(l)}: ${held
            .filter((i) => i.ladder === l)
            .map((i) => i.name)
            .join(', ')}`,
      ),
    }
  })
})
</script>

<template>
  <section v-if="barred.length" class="sheet stack">
    <h2>What is barred</h2>
    <div v-for="b in barred" :key="b.why">
      <p class="strong">{{ b.why }}</p>
      <p>
        {{ b.lifts }}
        <span v-if="b.day && b.day > view.today" class="quiet"> At the earliest {{ shortDate(b.day) }}.</span>
      </p>
      <p v-for="n in b.names" :key="n" class="quiet begins">{{ n }}</p>
    </div>
  </section>
</template>

<style scoped>
.begins::first-letter {
  text-transform: uppercase;
}
</style>
