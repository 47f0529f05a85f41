<script setup lang="ts">
// Levels to tap, after the fact.
const { level, drafted } = defineProps<{ level: number; drafted: boolean }>()
const emit = defineEmits<{ tap: [level: number] }>()
</script>

<template>
  <div class="pad" role="group" aria-label="Level">
    <button v-for="l in 11" :key="l" type="button" :aria-pressed="drafted && level === l - 1" @click="emit('tap', l - 1)">
      {{ l === 1 ? 'none' : l - 1 }}
    </button>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(var(--touch), 1fr));
  gap: var(--gap-2);
  padding: var(--gap-2);
  align-content: start;
  overflow-y: auto;
  background: var(--ivory-1);
}
button {
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  font: 700 var(--step-2) var(--font-head);
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
</style>
