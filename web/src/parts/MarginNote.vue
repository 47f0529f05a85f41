<script setup lang="ts">
// Something that wants attention, as a note in the margin: a sign, a verb, and the
// fact behind it.
import type { Schemas } from '../api/types'
import SignMark from './SignMark.vue'

const { note, to } = defineProps<{
  note: Schemas['AttentionNote']
  /** Where it is answered. */
  to?: string
}>()
</script>

<template>
  <p class="note">
    <SignMark :sign="note.sign" />
    <span
      ><RouterLink v-if="to" :to="to" class="does">{{ note.does.text }}</RouterLink
      ><b v-else>{{ note.does.text }}</b
      >. {{ note.say.text }} <slot></slot
    ></span>
  </p>
</template>

<style scoped>
.does {
  font-weight: 700;
  color: inherit;
}
.note {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: var(--gap-2);
  font-size: 0.9375rem;
  line-height: 1.3;
}
</style>
