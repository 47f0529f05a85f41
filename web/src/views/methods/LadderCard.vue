<script setup lang="ts">
// A ladder in the list: its bridge small, its piers in words, its schools.
import type { Schemas } from '../../api/types'
import { count } from '../../words'
import type { Ladder } from './handbook'
import SmallBridge from './SmallBridge.vue'

const {
  to,
  ladder,
  name,
  piers,
  note = '',
} = defineProps<{ to: string; ladder: Ladder; name: string; piers: Schemas['Pier'][]; note?: string }>()
</script>

<template>
  <article class="card">
    <h3>
      <RouterLink :to="to" class="link">{{ name }}</RouterLink>
    </h3>
    <SmallBridge
      :planks="ladder.steps.length"
      :piers="piers.length"
      :says="`${count(ladder.steps.length, 'step', 'steps')} on ${count(piers.length, 'pier', 'piers')}`"
    />
    <p class="small">{{ ladder.steps.map((s) => s.name).join(' · ') }}</p>
    <p v-if="piers.length" class="small quiet">stands on {{ piers.map((p) => p.says.text).join(' · ') }}</p>
    <p class="small quiet">{{ ladder.schools.join(', ') }}</p>
    <p v-if="note" class="small strong">{{ note }}</p>
  </article>
</template>

<style scoped>
.card {
  background: var(--ivory-0);
  border: var(--line);
  border-radius: var(--radius);
  padding: var(--gap-3);
  display: grid;
  gap: var(--gap-2);
  align-content: start;
}
.link {
  color: inherit;
}
</style>
