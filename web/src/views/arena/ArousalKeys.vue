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
  margin: var(--gap-1) 0;
}
.words {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(var(--touch), 1fr));
  gap: var(--gap-1);
}
button {
  min-height: var(--touch);
  min-width: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  font-size: var(--step-0);
  font-weight: 600;
  line-height: 1.1;
  padding: 0;
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
@media (max-width: 720px) {
  .lab {
    display: none;
  }
}
</style>
