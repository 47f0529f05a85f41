<script setup lang="ts">
// The next visit: what is done, in minutes, and what to bring.
import { computed } from 'vue'
import type { PlanView } from './usePlan'

const { view } = defineProps<{ view: PlanView }>()
const visit = computed(() => view.now.visits[0])
</script>

<template>
  <section class="part" aria-labelledby="next-visit">
    <h2 id="next-visit">Next visit</h2>
    <p v-if="!visit">Nothing is open to be worked. What stops us says what lifts it.</p>
    <template v-else>
      <p class="when">
        About {{ visit.minutes }} minutes
        <RouterLink :to="{ query: { see: 'visits' } }" aria-current-value="false" class="all">all of it</RouterLink>
      </p>
      <ol>
        <li v-for="(p, i) in visit.parts" :key="i" :class="{ strong: p.steps?.includes(view.now.next ?? '') }">
          <span class="minutes">{{ p.minutes }}</span>
          <span>{{ p.names?.join(', ') || p.kind }}<template v-if="p.kind === `owner's turn`">, owner's turn</template></span>
        </li>
      </ol>
      <p class="quiet bring clamp">Bring {{ visit.kit.join(', ') }}.</p>
      <p v-for="h in visit.helpers" :key="h" class="strong">Not alone: {{ h }}.</p>
    </template>
  </section>
</template>

<style scoped>
.when {
  font: 700 1.3125rem/1.2 var(--font-head);
}
.all {
  display: none;
}
ol {
  margin: 5px 0 0;
}
li {
  display: flex;
  gap: 10px;
  padding: 2px 0;
  border-bottom: var(--line);
  line-height: 1.28;
}
.minutes {
  width: 24px;
  flex: none;
  text-align: right;
  color: var(--ink-2);
}
.bring {
  margin-top: 6px;
  font-size: 0.875rem;
  line-height: 1.35;
  --lines: 3;
}
@media screen and (max-width: 720px) {
  .when {
    display: flex;
    justify-content: space-between;
    font-size: 1.125rem;
  }
  .all {
    display: inline;
    font: 400 1rem var(--font-ui);
  }
  ol {
    display: none;
  }
  .bring {
    --lines: 1;
  }
}
</style>
