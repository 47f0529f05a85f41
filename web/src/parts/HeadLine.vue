<script setup lang="ts">
// What is next, in one sentence, with what is asked there; at the right where that
// is, and the act.
import type { Schemas } from '../api/types'

const { headline } = defineProps<{ headline: Schemas['HeadlineHeadline'] }>()
</script>

<template>
  <header class="headline">
    <p class="lead">
      {{ headline.says.text }} <span v-if="headline.ask" class="ask">{{ headline.ask }}.</span>
    </p>
    <p class="quiet">{{ headline.where?.text }} <slot /></p>
  </header>
</template>

<style scoped>
.headline {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 0 var(--gap-3);
  margin-top: 8px;
}
.ask {
  font: 400 1.0625rem/1.3 var(--font-ui);
  letter-spacing: 0;
}
</style>
