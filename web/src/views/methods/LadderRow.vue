<script setup lang="ts">
// A ladder in the list: its planks small, and what it stands on.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import PlankShape from '../../parts/PlankShape.vue'
import { count } from '../../words'
import type { Ladder } from './handbook'

const {
  to,
  ladder,
  name,
  piers,
  note = '',
} = defineProps<{ to: string; ladder: Ladder; name: string; piers: Schemas['Pier'][]; note?: string }>()

const pitch = 12
const stands = computed(() => piers.map((p) => p.says.text).join(', '))
</script>

<template>
  <li class="ladder">
    <RouterLink :to="to" class="name">{{ name }}</RouterLink>
    <svg
      :viewBox="`0 0 ${ladder.steps.length * pitch} 12`"
      :width="ladder.steps.length * pitch"
      height="12"
      role="img"
      :aria-label="`${count(ladder.steps.length, 'step', 'steps')}: ${ladder.steps.map((s) => s.name).join(', ')}`"
    >
      <g v-for="(s, i) in ladder.steps" :key="s.key" :transform="`translate(${i * pitch + 1} 2)`">
        <PlankShape state="tried" :width="pitch - 2" :height="8" blank />
      </g>
    </svg>
    <p class="small quiet cut" :title="stands">{{ note || (stands ? `stands on ${stands}` : 'stands on nothing else') }}</p>
  </li>
</template>

<style scoped>
.ladder {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 var(--gap-2);
  padding: 5px 0;
  border-top: var(--line);
  line-height: 1.25;
}
.name {
  font: 700 1rem/1.25 var(--font-head);
  color: var(--ink-1);
  text-decoration: none;
}
.name::first-letter {
  text-transform: uppercase;
}
.name:hover {
  text-decoration: underline;
}
.cut {
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 1000px) {
  .ladder {
    min-height: 52px;
  }
}
</style>
