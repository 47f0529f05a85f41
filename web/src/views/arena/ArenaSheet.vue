<script setup lang="ts">
// A sheet over the arena, in its own light, closed by one large button or Escape.
import { onMounted, useTemplateRef } from 'vue'

const { title } = defineProps<{ title: string }>()
const emit = defineEmits<{ close: [] }>()
const dialog = useTemplateRef('dialog')
onMounted(() => dialog.value?.showModal())
</script>

<template>
  <dialog ref="dialog" class="over" :aria-label="title" @close="emit('close')">
    <header>
      <h2>{{ title }}</h2>
      <button type="button" @click="dialog?.close()">Close</button>
    </header>
    <div class="body"><slot /></div>
  </dialog>
</template>

<style scoped>
.over {
  border: 5px solid var(--arena-ink);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  padding: 0;
  width: min(860px, calc(100vw - 2 * var(--gap-2)));
  max-height: calc(100dvh - 2 * var(--gap-3));
  font-size: var(--step-2);
}
.over::backdrop {
  background: rgb(16 24 26 / 55%);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--gap-3);
  padding: var(--gap-2) var(--gap-3);
  border-bottom: var(--stroke);
  position: sticky;
  top: 0;
  background: var(--ivory-0);
}
h2 {
  font-size: var(--step-3);
}
header button {
  min-height: var(--touch);
  min-width: 96px;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  font-weight: 700;
  cursor: pointer;
}
.body {
  padding: var(--gap-3);
  display: grid;
  gap: var(--gap-3);
}
</style>
