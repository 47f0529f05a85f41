<script setup lang="ts">
// The steps of a ladder to do, in order; what waits says for what, what is
// barred says why.
import type { Schemas } from '../../api/types'
import PlankShape from '../../parts/PlankShape.vue'
import { shortDate } from '../../words'

const { items, next, today } = defineProps<{ items: Schemas['PlanItem'][]; next: string; today: string }>()
</script>

<template>
  <ol class="steps">
    <li v-for="i in items" :key="i.step" class="step" :class="{ next: i.step === next }">
      <svg width="44" height="22" viewBox="-1 -1 44 24" class="plank" role="img" :aria-label="i.blocked ? 'blocked' : i.state">
        <PlankShape :state="i.blocked ? 'blocked' : i.state" :width="42" :height="20" />
      </svg>
      <div>
        <p>
          <RouterLink :to="`/methods/${i.ladder}/${i.step}`" class="strong name">{{ i.name }}</RouterLink>
          <span class="quiet">{{ i.ask }}</span>
        </p>
        <p v-if="i.step === next" class="small strong">The work goes on here.</p>
        <p v-if="i.known" class="small quiet first-letter">{{ i.known.text }}.</p>
        <p v-if="i.level" class="small">Here it is needed at level {{ i.level }}.</p>
        <p v-if="i.met" class="small quiet">Met. To be kept on a later day.</p>
        <p v-else-if="i.below" class="small quiet">{{ i.below.text }}</p>
        <p v-if="i.blocked" class="small wrong">
          {{ i.blocked.text }} {{ i.lifts?.text }}
          <span v-if="i.lift && i.lift > today">At the earliest {{ shortDate(i.lift) }}.</span>
        </p>
        <p v-if="i.needs?.length" class="small quiet">Waits for {{ i.needs.join(', ') }}.</p>
        <p v-if="i.warns?.length" class="small wrong">Missing, and worked here as it comes: {{ i.warns.join(', ') }}.</p>
      </div>
      <span v-if="!i.met" class="quiet small about">about {{ i.minutes }} min</span>
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
.first-letter::first-letter {
  text-transform: uppercase;
}
.name {
  margin-right: var(--gap-2);
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
@media screen and (max-width: 560px) {
  .step {
    grid-template-columns: 44px minmax(0, 1fr);
  }
  .about {
    grid-column: 2;
  }
}
</style>
