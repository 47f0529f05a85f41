<script setup lang="ts">
// What the planks mean.
import { states } from './plank'
import PlankShape from './PlankShape.vue'
</script>

<template>
  <ul class="row small key" aria-label="What the planks mean">
    <li v-for="s in states" :key="s" class="row">
      <svg width="34" height="20" viewBox="-1 -2 34 22" aria-hidden="true">
        <PlankShape :state="s" :width="32" :height="16" />
      </svg>
      {{ s }}
    </li>
  </ul>
</template>

<style scoped>
.key .row {
  gap: var(--gap-2);
}
</style>
