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
    <div v-if="data?.length === 0" class="sheet stack">
      <h2>No reports yet</h2>
      <p>After the first session its page for the owner stands here, written from the log.</p>
    </div>
    <ul v-else class="sheet">
      <li v-for="r in data" :key="r.session" class="row between line">
        <RouterLink :to="`/reports/${r.session}`">Visit on {{ longDate(r.date) }}</RouterLink>
        <span class="quiet"
          >{{ r.version ? `worded by ${r.saved_by}` : 'as written from the log'
          }}{{ r.ended ? '' : ', session still open' }}</span
        >
      </li>
    </ul>
  </PageState>
</template>

<style scoped>
.line {
  min-height: var(--control);
}
.line + .line {
  border-top: var(--line);
}
</style>
