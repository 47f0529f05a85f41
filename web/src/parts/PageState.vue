<script setup lang="ts">
// What a page shows before its data is there: ruled lines keep its place. What went
// wrong is said in one line, with a way to try again; what was on show stays, with
// its time.
import type { Trouble } from '../api/client'
import { clockTime } from '../words'

const { trouble, ready, at = 0 } = defineProps<{ trouble?: Trouble; ready: boolean; at?: number }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <div v-if="trouble" class="wrong" role="alert">
    <p class="strong">
      {{ trouble.message }} <template v-if="ready && at">What you see was read at {{ clockTime(at) }}.</template>
    </p>
    <button type="button" class="button plain" @click="emit('again')">Try again</button>
  </div>
  <p v-else-if="!ready" class="quiet wait" role="status">Looking it up</p>
  <slot v-if="ready" />
</template>

<style scoped>
.wait {
  flex: 1;
  min-height: 60vh;
  padding-top: var(--gap-3);
  background: repeating-linear-gradient(transparent 0 47px, var(--ivory-2) 47px 48px);
}
.wrong {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-1) var(--gap-3);
  padding: var(--gap-1) 0;
  border-bottom: var(--line);
}
.wrong p {
  flex: 1 1 300px;
}
</style>
