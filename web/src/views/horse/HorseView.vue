<script setup lang="ts">
import { computed, provide, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import SnagMark from '../../parts/SnagMark.vue'
import HorseHead from './HorseHead.vue'
import UnreadNote from './UnreadNote.vue'
import { horseFile } from '../../cases/file'

const { id } = defineProps<{ id: string }>()
const { data, trouble, load } = useLoad(() => told(api.GET('/api/horses/{id}', { params: { path: { id } } })))
watch(() => id, load)
provide(horseFile, { file: data, reload: load })

const route = useRoute()
/** The front of the result and of the plan say it themselves, the gravest first. */
const gated = computed(
  () => !route.query.see && (route.path.endsWith('/plan') || (route.path.endsWith('/assessment') && !!data.value?.assessed)),
)
</script>

<template>
  <div class="page horse">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <HorseHead :file="data" />
        <ul v-if="data.forbidden.length && !gated" class="forbidden" aria-label="What nobody does for now">
          <li v-for="m in data.forbidden" :key="m.key"><SnagMark kind="forbidden" />{{ m.text }}</li>
        </ul>
        <UnreadNote v-for="u in data.unread" :key="u.id" :entry="u" @aside="load" />
        <RouterView />
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.forbidden {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--gap-4);
  padding: 5px 0;
  border-bottom: var(--line);
  font-weight: 700;
  color: var(--rust);
}
.forbidden li {
  display: flex;
  align-items: center;
  gap: var(--gap-2);
}
.forbidden :deep(.snag) {
  width: 18px;
  height: 22px;
}
</style>
