<script setup lang="ts">
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { longDate } from '../../words'
import { useHorseFile } from '../../cases/file'

const { file } = useHorseFile()
const { data, trouble, load } = useLoad(() =>
  told(api.GET('/api/horses/{id}/reports', { params: { path: { id: file.value?.id ?? '' } } })),
)
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
    <div v-if="data?.length === 0" class="stack none">
      <h2 class="lead">No reports yet</h2>
      <p>After the first session its page for the owner stands here, written from the log.</p>
    </div>
    <template v-else>
      <p class="lead none">A page for the owner after each session, newest first.</p>
      <p class="row papers">
        <RouterLink :to="`/horses/${file?.id}/paper/closing`">Before and after, the page at the end of the work</RouterLink>
        <RouterLink :to="`/horses/${file?.id}/paper/file`">The whole file, for whoever takes over</RouterLink>
      </p>
      <ul class="list">
        <li v-for="r in data" :key="r.session" class="row between line">
          <RouterLink :to="`/reports/${r.session}`">Visit on {{ longDate(r.date) }}</RouterLink>
          <span class="quiet"
            >{{ r.version ? `worded by ${r.saved_by}` : 'as written from the log'
            }}{{ r.ended ? '' : ', session still open' }}</span
          >
        </li>
      </ul>
    </template>
  </PageState>
</template>

<style scoped>
.none {
  padding: 11px 0 8px;
}
.papers {
  gap: var(--gap-4);
  padding-bottom: var(--gap-2);
}
.list {
  border-top: var(--rule);
}
.line {
  min-height: 48px;
  border-bottom: var(--line);
}
</style>
