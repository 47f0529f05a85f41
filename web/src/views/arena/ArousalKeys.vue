<script setup lang="ts">
// How the horse is, in words.
const { words, calm } = defineProps<{ words: string[]; calm: number }>()
const emit = defineEmits<{ arousal: [level: number] }>()
</script>

<template>
  <div class="how">
    <p class="lab">How is it?</p>
    <div class="words" role="group" aria-label="How is it?">
      <button
        v-for="(w, i) in words"
        :key="w"
        type="button"
        class="arousal"
        :aria-pressed="calm === i"
        @click="emit('arousal', i)"
      >
        {{ w }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.lab {
  font-size: var(--step-1);
  margin: var(--gap-2) 0 var(--gap-1);
}
.words {
  display: grid;
  grid-template-columns: repeat(6, 1fr);
  gap: var(--gap-2);
}
button {
  grid-column: span 2;
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  font-size: var(--step-1);
  font-weight: 600;
  line-height: 1.1;
  padding: 0 var(--gap-1);
  cursor: pointer;
}
button:nth-child(n + 4) {
  grid-column: span 3;
}
button[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
@media (min-width: 1001px) {
  .words {
    grid-template-columns: repeat(5, 1fr);
  }
  button,
  button:nth-child(n + 4) {
    grid-column: auto;
    font-size: var(--step-0);
    padding: 0;
  }
}
</style>
