<script setup lang="ts" generic="T extends string | number">
// A choice of a few, one tap each: one of them, or any number.
const {
  choices,
  chosen,
  label,
  big = false,
} = defineProps<{
  choices: { value: T; text: string }[]
  chosen: readonly T[]
  label: string
  big?: boolean
}>()
const emit = defineEmits<{ toggle: [value: T] }>()
</script>

<template>
  <div role="group" :aria-label="label" class="chips" :class="{ big }">
    <button
      v-for="c in choices"
      :key="c.value"
      type="button"
      class="chip"
      :aria-pressed="chosen.includes(c.value)"
      @click="emit('toggle', c.value)"
    >
      {{ c.text }}
    </button>
    <slot />
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
}
.chip {
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  min-height: var(--control);
  cursor: pointer;
}
.chip[aria-pressed='true'] {
  background: var(--ink-1);
  border-color: var(--ink-1);
  color: var(--ivory-0);
  font-weight: 600;
}
.big .chip {
  min-height: var(--touch);
  min-width: var(--touch);
  border: var(--stroke);
  font-weight: 600;
  flex: 1 1 auto;
}
.big .chip[aria-pressed='true'] {
  background: var(--arena-ink);
}
</style>
