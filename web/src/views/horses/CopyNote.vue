<script setup lang="ts">
// A copy that failed is said where everybody begins. It is looked for once the page stands.
import { ref } from 'vue'
import { ahead, told } from '../../api/client'

const wrong = ref('')
void told(ahead.GET('/api/house'))
  .then((house) => (wrong.value = house.copies.on ? (house.copies.wrong ?? '') : ''))
  .catch(() => undefined) // without a signal there is nothing to say
</script>

<template>
  <p v-if="wrong" class="copy-note" role="alert">
    <b>{{ wrong }}</b> <RouterLink to="/house?see=copies">Copies</RouterLink>
  </p>
</template>

<style scoped>
.copy-note {
  margin: 0;
  padding: var(--gap-2) 0;
  border-bottom: var(--line);
}
</style>
