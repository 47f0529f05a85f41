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
    <header class="page-head">
      <h1>Arena</h1>
      <p class="facts">{{ open.length ? 'A session is still open.' : 'Choose the horse; the gate comes first.' }}</p>
    </header>
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
.page-head {
  margin-bottom: 0;
}
.part {
  gap: 0;
  padding-top: var(--gap-3);
}
.part + .part {
  border-top: var(--rule);
}
.part h2 {
  padding-bottom: var(--gap-1);
}
.way {
  display: grid;
  grid-template-columns: minmax(0, 280px) minmax(0, 1fr);
  align-items: center;
  gap: 0 var(--gap-3);
  min-height: var(--touch);
  border-top: var(--line);
  color: inherit;
  text-decoration: none;
}
.way:hover b {
  text-decoration: underline;
}
.way b {
  font: 700 var(--step-2) var(--font-head);
}
.open b {
  text-decoration: underline;
}
@media screen and (max-width: 720px) {
  .way {
    grid-template-columns: minmax(0, 1fr);
    align-content: center;
  }
}
</style>
