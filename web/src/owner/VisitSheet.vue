<script setup lang="ts">
// The page of one visit, as the trainer sent it.
import { longDate } from '../dates'
import BridgeArch from './BridgeArch.vue'
import type { Pages } from './client'
import NotNow from './NotNow.vue'

const { visit, alone } = defineProps<{ visit: NonNullable<Pages['visit']>; alone?: boolean }>()
</script>

<template>
  <article>
    <header v-if="alone">
      <h1>{{ visit.horse }}</h1>
      <p>Visit on {{ longDate(visit.date) }}, {{ visit.by }}</p>
    </header>
    <template v-for="p in visit.parts" :key="p.key">
      <template v-if="p.key === 'first'">
        <component :is="s.id.startsWith('first.forbid') ? NotNow : 'p'" v-for="s in p.says" :key="s.id" class="first">{{
          s.text
        }}</component>
      </template>
      <section v-else>
        <h2>{{ p.title }}</h2>
        <p v-for="s in p.says" :key="s.id">{{ s.text }}</p>
        <BridgeArch v-if="alone && p.key === 'short'" :bridge="visit.bridge" :name="visit.horse" />
      </section>
    </template>
  </article>
</template>

<style scoped>
article {
  padding-bottom: var(--gap-4);
}
p.first:not(.not) {
  padding: var(--gap-2) var(--gap-3);
}
header {
  padding: var(--gap-3);
}
</style>
