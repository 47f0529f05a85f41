<script setup lang="ts" generic="T extends string | number">
// One thing to say in one tap: words over a ruled line, the chosen one inked.
const { name, of, words } = defineProps<{ name: string; of: readonly T[]; words?: (value: T) => string }>()
const chosen = defineModel<T | undefined>({ required: true })
</script>

<template>
  <div class="row" role="group" :aria-label="name">
    <span>{{ name }}</span>
    <button v-for="value in of" :key="value" type="button" :aria-pressed="chosen === value" @click="chosen = value">
      {{ words ? words(value) : value }}
    </button>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: var(--gap-2);
  margin-top: 6px;
}
.row span {
  width: 84px;
  flex: none;
  font-weight: 600;
  line-height: 1.15;
}
.row button {
  flex: 1;
  min-height: var(--touch);
  border: 0;
  border-bottom: var(--stroke);
  font-weight: 600;
  line-height: 1.1;
  padding: 4px 2px;
  font-size: 1rem;
  overflow-wrap: normal;
}
</style>
