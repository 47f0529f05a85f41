<script setup lang="ts">
// The steps to do, in order; what waits says for what, what is barred says why.
import type { Schemas } from '../../api/client'
import PlankShape from '../../parts/PlankShape.vue'

const { plan } = defineProps<{ plan: Schemas['PlanPlan'] }>()
</script>

<template>
  <ol class="steps">
    <li v-for="i in plan.items" :key="i.step" class="step" :class="{ next: i.step === plan.next }">
      <svg width="44" height="22" viewBox="-1 -1 44 24" class="plank" role="img" :aria-label="i.blocked ? 'blocked' : i.state">
        <PlankShape :state="i.blocked ? 'blocked' : i.state" :width="42" :height="20" />
      </svg>
      <div>
        <p>
          <b>{{ i.name }}</b> <span class="quiet">{{ i.ask }}</span>
        </p>
        <p v-if="i.step === plan.next" class="small strong">The work goes on here.</p>
        <p v-if="i.level" class="small">Here it is needed at level {{ i.level }}.</p>
        <p v-if="i.blocked" class="small wrong">{{ i.blocked.text }} {{ i.lifts?.text }}</p>
        <p v-else-if="i.needs?.length" class="small quiet">Waits for {{ i.needs.join(', ') }}.</p>
      </div>
      <span class="quiet small about">about {{ i.minutes }} min</span>
    </li>
  </ol>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr) auto;
  gap: var(--gap-3);
  padding: var(--gap-2) 0;
  border-top: var(--line);
}
.step.next {
  background: var(--ivory-1);
}
.plank {
  margin-top: 2px;
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
</style>
