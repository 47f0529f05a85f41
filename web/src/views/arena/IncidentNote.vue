<script setup lang="ts">
// What happened, to whom, and what was done, while it is fresh.
import { ref, useId } from 'vue'

const emit = defineEmits<{ note: [text: string] }>()
const id = useId()
const note = ref('')
const kept = ref(false)

function keep() {
  emit('note', note.value.trim())
  kept.value = true
}
</script>

<template>
  <section>
    <h3>Incident note</h3>
    <label class="visually-hidden" :for="id">What happened, to whom, and what was done</label>
    <textarea :id="id" v-model="note" rows="3" maxlength="2000" placeholder="What happened, to whom, and what was done" />
    <button type="button" :disabled="!note.trim()" @click="keep">Keep the note</button>
    <p v-if="kept" role="status">Kept.</p>
  </section>
</template>

<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
textarea {
  font: inherit;
  width: 100%;
  border: var(--stroke);
  border-radius: var(--radius);
  padding: var(--gap-2);
}
button {
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font-weight: 700;
  cursor: pointer;
}
</style>
