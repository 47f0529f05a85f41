<script setup lang="ts">
// Who changed the house rules, when, and why.
import type { Schemas } from '../../api/types'
import { instant } from '../../words'

const { made } = defineProps<{ made: Schemas['HouseMade'][] }>()
</script>

<template>
  <section class="sheet stack">
    <h2>Who changed them</h2>
    <p v-if="made.length === 0" class="quiet">Nobody yet: all is as it ships.</p>
    <ul>
      <li v-for="m in made" :key="m.version" class="line">
        <span class="quiet">{{ instant(m.at) }}</span> <b>{{ m.by }}</b>: {{ m.reason }}
        <span class="quiet small">{{ m.differs.length ? m.differs.join(' ') : 'As it ships.' }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
