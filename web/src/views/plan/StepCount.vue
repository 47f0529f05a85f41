<script setup lang="ts">
// A small number that goes up and down by one tap.
const { label, value, most, hint = '' } = defineProps<{ label: string; value: number; most: number; hint?: string }>()
const emit = defineEmits<{ change: [n: number] }>()
</script>

<template>
  <div role="group" :aria-label="label" class="count">
    <span class="name">{{ label }}</span>
    <div class="row">
      <button type="button" class="key" :disabled="value <= 0" @click="emit('change', value - 1)">
        <span aria-hidden="true">−</span><span class="visually-hidden">One less: {{ label }}</span>
      </button>
      <output class="value">{{ value }}</output>
      <button type="button" class="key" :disabled="value >= most" @click="emit('change', value + 1)">
        <span aria-hidden="true">+</span><span class="visually-hidden">One more: {{ label }}</span>
      </button>
    </div>
    <span v-if="hint" class="quiet small">{{ hint }}</span>
  </div>
</template>

<style scoped>
.count {
  display: grid;
  gap: var(--gap-1);
  align-content: start;
}
.name {
  font-weight: 600;
}
.row {
  gap: 0;
}
.key {
  width: var(--control);
  min-height: var(--control);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  font-size: var(--step-2);
  cursor: pointer;
}
.key:disabled {
  color: var(--ink-3);
  border-style: dashed;
  cursor: default;
}
.value {
  min-width: 2.4em;
  text-align: center;
  font-weight: 700;
  font-size: var(--step-2);
}
</style>
