<script setup lang="ts">
// The levels as knots along a rope, one tap each.
const { level = undefined, label } = defineProps<{ level?: number | null; label: string }>()
const emit = defineEmits<{ tap: [level: number] }>()
</script>

<template>
  <div class="levels" role="group" :aria-label="label">
    <button v-for="l in 11" :key="l" type="button" :aria-pressed="level === l - 1" @click="emit('tap', l - 1)">
      {{ l - 1 }}
    </button>
  </div>
</template>

<style scoped>
.levels {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(46px, 1fr));
  gap: var(--gap-1) 0;
  max-width: 660px;
}
button {
  position: relative;
  min-height: var(--control);
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  font: 700 var(--step-2) var(--font-head);
  isolation: isolate;
}
/* the rope, and the knot on it */
button::before {
  content: '';
  position: absolute;
  inset: calc(50% - 2px) 0 auto;
  border-top: 4px dotted var(--leather);
  z-index: -2;
}
button::after {
  content: '';
  position: absolute;
  inset: calc(50% - 18px) calc(50% - 18px);
  width: 36px;
  height: 36px;
  border: 2px solid var(--ink-2);
  border-radius: 50%;
  background: var(--ivory-0);
  z-index: -1;
}
button[aria-pressed='true'] {
  color: var(--ivory-0);
}
button[aria-pressed='true']::after {
  background: var(--ink-1);
  border-color: var(--ink-1);
}
</style>
