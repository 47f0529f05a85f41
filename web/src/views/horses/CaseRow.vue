<script setup lang="ts">
import type { Schemas } from '../../api/types'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import MarginNote from '../../parts/MarginNote.vue'
import { daysAgo, secure, shortDate } from '../../words'

const { row } = defineProps<{ row: Schemas['Row'] }>()
</script>

<template>
  <li class="case">
    <div class="who">
      <RouterLink :to="`/horses/${row.id}`" class="name">{{ row.name }}</RouterLink>
      <p class="quiet">{{ [row.owners.join(', '), row.yard].filter(Boolean).join(' · ') }}</p>
    </div>
    <div class="bridge">
      <template v-if="!row.unread">
        <BridgeStrip :bridge="row.bridge" />
        <p class="small">{{ secure(row.bridge) }}</p>
      </template>
    </div>
    <div class="facts small">
      <p class="strong">{{ row.care }}</p>
      <p v-if="!row.unread">{{ daysAgo(row.days_off) }}</p>
      <p v-if="row.case.finished_on">finished {{ shortDate(row.case.finished_on) }}</p>
      <p v-else-if="row.case.needed_by">needed by {{ shortDate(row.case.needed_by) }}</p>
    </div>
    <div class="notes">
      <MarginNote v-if="row.open_session" urgent>
        A session is still open. <RouterLink :to="`/arena/${row.open_session}`">Go on with it</RouterLink>
      </MarginNote>
      <MarginNote v-for="n in row.attention" :key="n.say.text" :urgent="n.rank <= 2">{{ n.say.text }}</MarginNote>
    </div>
  </li>
</template>

<style scoped>
.case {
  display: grid;
  grid-template-columns: minmax(170px, 1.1fr) 252px minmax(140px, 0.7fr) minmax(200px, 1.4fr);
  gap: var(--gap-2) var(--gap-4);
  padding: var(--gap-3) var(--gap-4);
  align-items: start;
}
.case + .case {
  border-top: var(--line);
}
.name {
  font: 700 var(--step-2) / 1.2 var(--font-head);
  color: var(--ink-1);
  overflow-wrap: anywhere;
}
.notes {
  display: grid;
  gap: var(--gap-1);
}
@media (max-width: 1000px) {
  .case {
    grid-template-columns: minmax(0, 1fr) 252px;
  }
}
@media (max-width: 620px) {
  .case {
    grid-template-columns: minmax(0, 1fr);
    padding: var(--gap-3);
  }
}
</style>
