<script setup lang="ts">
// The five answers in a row, the one given pressed.
import AnswerShape from './AnswerShape.vue'

const { answers, given = '', label } = defineProps<{ answers: string[]; given?: string; label: string }>()
const emit = defineEmits<{ tap: [answer: string] }>()
</script>

<template>
  <div class="answers" role="group" :aria-label="label">
    <button v-for="a in answers" :key="a" type="button" :aria-pressed="given === a" @click="emit('tap', a)">
      <AnswerShape :answer="a" ink />{{ a }}
    </button>
  </div>
</template>

<style scoped>
.answers {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
}
button {
  display: inline-flex;
  align-items: center;
  gap: var(--gap-2);
  min-height: var(--control);
  padding: 0 var(--gap-3);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  cursor: pointer;
}
button[aria-pressed='true'] {
  border-color: var(--ink-1);
  box-shadow: inset 0 0 0 2px var(--ink-1);
  font-weight: 700;
  background: var(--ivory-2);
}
</style>
