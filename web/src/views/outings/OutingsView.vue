<script setup lang="ts">
// The horses that are worked away from the yard: how far each is at ease, and how far the
// next outing goes.
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { distance } from '../../lengths'
import { count, dayMonth } from '../../words'

const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/outings')))
const next = { half: 'half the way', same: 'the same way', further: 'a quarter further', '': '' }
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Outings</h1>
      <p class="facts">The slow way home. Home takes at least twice the time out, with stops to stand.</p>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <p v-if="data?.length === 0" class="lead">No horse in work is worked away from the yard.</p>
      <ul>
        <li v-for="h in data" :key="h.id" class="horse">
          <div>
            <h2>
              <RouterLink :to="`/outings/${h.id}`">{{ h.name }}</RouterLink>
            </h2>
            <p class="quiet">{{ h.yard }}</p>
          </div>
          <p>
            <template v-if="h.count">
              {{ count(h.count, 'outing', 'outings') }}, the last on {{ dayMonth(h.last ?? '') }}.
              {{ h.comfort ? `At ease to ${distance(h.comfort)}.` : 'At ease nowhere yet.' }}
              <template v-if="h.next">Next: {{ next[h.next.next] }}.</template>
            </template>
            <template v-else>No outing yet.</template>
          </p>
          <RouterLink v-if="h.open_session" :to="`/arena/${h.open_session}/walk`" class="button">Go on walking</RouterLink>
          <RouterLink v-else :to="`/outings/${h.id}/plan`" class="button">Plan an outing</RouterLink>
        </li>
      </ul>
    </PageState>
  </div>
</template>

<style scoped>
.horse {
  display: grid;
  grid-template-columns: minmax(180px, 1fr) 2fr auto;
  gap: var(--gap-2) var(--gap-4);
  align-items: center;
  padding: var(--gap-2) 0;
  border-bottom: var(--line);
}
h2 a {
  color: inherit;
}
@media (max-width: 720px) {
  .horse {
    grid-template-columns: minmax(0, 1fr);
  }
  .button {
    min-height: var(--touch);
  }
}
</style>
