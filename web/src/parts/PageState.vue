<script setup lang="ts">
// What a page shows before its data is there: it keeps the place, says what is
// wrong, and offers to try again.
import type { Trouble } from '../api/client'

const { trouble, ready } = defineProps<{ trouble?: Trouble; ready: boolean }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <div v-if="trouble" class="sheet stack" role="alert">
    <p class="strong">{{ trouble.message }}</p>
    <div><button type="button" class="button plain" @click="emit('again')">Try again</button></div>
  </div>
  <p v-else-if="!ready" class="quiet wait" role="status">Looking it up</p>
  <slot v-if="ready" />
</template>

<style scoped>
.wait {
  min-height: 60vh;
}
.sheet {
  margin-bottom: var(--gap-3);
}
</style>
