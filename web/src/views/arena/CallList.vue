<script setup lang="ts">
// Whom to ring, each a large button that dials. The numbers are kept on this device.
import type { Schemas } from '../../api/types'
import { dial } from '../../parts/dial'

const { contacts } = defineProps<{ contacts: Schemas['Contact'][] }>()
</script>

<template>
  <ul class="calls">
    <li v-for="c in contacts" :key="c.what + c.phone">
      <a :href="dial(c.phone)">
        <span>{{ c.what }}</span> <b>{{ c.phone }}</b> <span>{{ c.name }}</span>
      </a>
    </li>
  </ul>
  <p v-if="contacts.length === 0">No numbers are written down for this horse. Add the vet, the owner and the yard in People.</p>
</template>

<style scoped>
.calls {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(220px, 100%), 1fr));
  gap: var(--gap-2);
}
.calls a {
  display: grid;
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  padding: var(--gap-1) var(--gap-3);
  color: var(--arena-ink);
  text-decoration: none;
  font-size: var(--step-1);
}
.calls b {
  font-size: var(--step-2);
}
</style>
