<script setup lang="ts">
// What the school counts while it is worked, today beside the last session.
import type { Schemas } from '../../api/types'

const { lines } = defineProps<{ lines: Schemas['PhraseMessage'][] }>()
</script>

<template>
  <p v-if="lines.length" class="live" role="status">
    <span v-for="l in lines" :key="l.text">{{ l.text }} </span>
  </p>
</template>

<style scoped>
.live {
  font-size: var(--step-1);
  font-weight: 600;
}
@media (max-width: 720px) {
  .live {
    font-size: var(--step-0);
  }
}
</style>
