<script setup lang="ts">
// Why something could not be done, near the button that was pressed.
import type { Trouble } from '../api/client'

const { trouble, shown = [] } = defineProps<{
  trouble?: Trouble
  /** Fields that show their own trouble. */
  shown?: string[]
}>()
</script>

<template>
  <div v-if="trouble" class="wrong" role="alert">
    <p>{{ trouble.message }}</p>
    <p v-for="say in trouble.beyond(shown)" :key="say">{{ say }}</p>
  </div>
</template>

<style scoped>
.wrong {
  color: var(--rust);
  font-weight: 600;
}
</style>
