<script setup lang="ts">
// The five answer keys. A second, stray contact right after one is ignored.
import AnswerShape from './AnswerShape.vue'
import { answers, type AnswerWord } from './answers'

const { disabled = false } = defineProps<{ disabled?: boolean }>()
const emit = defineEmits<{ answer: [answer: AnswerWord] }>()

const stray = 150
let last = 0

function tap(answer: AnswerWord, at: number) {
  if (at - last < stray) return
  last = at
  emit('answer', answer)
}
</script>

<template>
  <button
    v-for="a in answers"
    :key="a.answer"
    type="button"
    class="answer"
    :disabled="disabled"
    :data-answer="a.answer"
    @click="tap(a.answer, $event.timeStamp)"
  >
    <AnswerShape :answer="a.answer" ink />
    <span class="word">{{ a.answer }}</span>
    <span class="says">{{ a.says }} · {{ a.key }}</span>
  </button>
</template>

<style scoped>
.answer {
  direction: ltr;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  min-height: var(--touch);
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 2px;
  font-size: var(--step-2);
  font-weight: 700;
  padding: var(--gap-1);
  cursor: pointer;
  touch-action: manipulation;
}
.answer:active {
  background: var(--ivory-2);
}
.answer:disabled {
  opacity: 0.5;
}
.says {
  font-size: var(--step-0);
  font-weight: 500;
}
@media screen and (max-width: 720px) {
  .answer {
    gap: 0;
    padding: 0;
    font-size: var(--step-0);
  }
  .says {
    display: none;
  }
}
</style>
