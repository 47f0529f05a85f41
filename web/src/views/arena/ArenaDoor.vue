<script setup lang="ts">
// The way into the arena: what is still open, and the horses that may be taken in.
import { computed } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { daysAgo } from '../../words'

const { data, trouble, load } = useLoad(() => told(api.GET('/api/caseload')))
const open = computed(() => (data.value ?? []).filter((r) => r.open_session))
const others = computed(() => (data.value ?? []).filter((r) => !r.open_session && !r.case.finished_on))
</script>

<template>
  <div class="page">
    <header class="page-head"><h1>Arena</h1></header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <section v-if="open.length" class="stack part">
        <h2>Still open</h2>
        <RouterLink v-for="r in open" :key="r.id" :to="`/arena/${r.open_session}`" class="way open">
          <b>{{ r.name }}</b> <span>go on where it stopped</span>
        </RouterLink>
      </section>
      <section class="stack part">
        <h2>Into the arena with</h2>
        <p v-if="others.length === 0">No horse is waiting. <RouterLink to="/horses/new">Take one on</RouterLink>.</p>
        <RouterLink v-for="r in others" :key="r.id" :to="`/arena/ready/${r.case.id}`" class="way">
          <b>{{ r.name }}</b> <span>{{ r.yard }} · {{ daysAgo(r.days_off) }} · {{ r.care }}</span>
        </RouterLink>
      </section>
    </PageState>
  </div>
</template>

<style scoped>
.part {
  margin-bottom: var(--gap-4);
  max-width: 720px;
}
.way {
  display: grid;
  min-height: var(--touch);
  align-content: center;
  border: 2px solid var(--ink-1);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: var(--gap-2) var(--gap-3);
  color: inherit;
  text-decoration: none;
}
.way b {
  font: 700 var(--step-2) var(--font-head);
}
.open {
  border-width: 4px;
}
</style>
