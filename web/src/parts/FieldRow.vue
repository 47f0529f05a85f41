<script setup lang="ts">
// A field with its label, a hint, and what is wrong with it next to it.
import { useId } from 'vue'

const { label, hint = '', wrong = '' } = defineProps<{ label: string; hint?: string; wrong?: string }>()
const id = useId()
</script>

<template>
  <div class="field" :class="{ 'field-wrong': wrong }">
    <label :for="id" class="label">{{ label }}</label>
    <slot :id="id" :describedby="wrong ? `${id}-wrong` : undefined" />
    <p v-if="wrong" :id="`${id}-wrong`" class="wrong" role="alert">{{ wrong }}</p>
    <p v-else-if="hint" class="quiet small">{{ hint }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  gap: var(--gap-1);
  align-content: start;
  min-width: 0;
}
.label {
  font-weight: 600;
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
</style>
