<script setup lang="ts">
// Something that wants attention, as a note in the margin: a sign, a verb, and the
// fact behind it.
import type { Schemas } from '../api/types'
import SignMark from './SignMark.vue'

const { note } = defineProps<{ note: Schemas['AttentionNote'] }>()
</script>

<template>
  <p class="note">
    <SignMark :sign="note.sign" />
    <span
      ><b>{{ note.does.text }}.</b> {{ note.say.text }}</span
    >
  </p>
</template>

<style scoped>
.note {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: var(--gap-2);
  font-size: 0.9375rem;
  line-height: 1.3;
}
</style>
