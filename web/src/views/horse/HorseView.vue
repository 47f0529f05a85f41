<script setup lang="ts">
import { computed, provide, watch } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { shortDate } from '../../words'
import CareGrade from './CareGrade.vue'
import UnreadNote from './UnreadNote.vue'
import { horseFile } from '../../cases/file'

const { id } = defineProps<{ id: string }>()
const { data, trouble, load } = useLoad(() => told(api.GET('/api/horses/{id}', { params: { path: { id } } })))
watch(() => id, load)
provide(horseFile, { file: data, reload: load })

const tabs = computed(() => [
  { to: `/horses/${id}`, name: 'Bridge' },
  { to: `/horses/${id}/assessment`, name: 'Assessment' },
  { to: `/horses/${id}/plan`, name: 'Plan' },
  { to: `/horses/${id}/sessions`, name: data.value?.sessions ? `Sessions ${data.value.sessions}` : 'Sessions' },
  { to: `/horses/${id}/reports`, name: 'Reports' },
  { to: `/horses/${id}/record`, name: 'Record' },
])

const facts = computed(() => {
  const f = data.value
  if (!f) return []
  const r = f.record
  const age = r.born ? `born ${r.born.slice(0, 4)}` : ''
  const height = r.height_mm ? `${r.height_mm / 10} cm` : ''
  const owners = f.owners.map((o) => o.name).join(', ')
  return [
    [r.sex, age, height, r.breed].filter(Boolean).join(', '),
    [owners && `owner ${owners}`, f.yard].filter(Boolean).join(' · '),
    [r.living, f.case.finished_on && `finished ${shortDate(f.case.finished_on)}`].filter(Boolean).join(' · '),
  ].filter(Boolean)
})
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <header class="head">
          <div class="title">
            <h1>{{ data.name }}</h1>
            <p v-for="f in facts" :key="f" class="quiet">{{ f }}</p>
          </div>
          <div class="row actions">
            <CareGrade :risk="data.risk" :precautions="data.precautions" />
            <RouterLink v-if="data.open_session" :to="`/arena/${data.open_session}`" class="button"
              >Back into the arena</RouterLink
            >
            <RouterLink v-else-if="!data.case.finished_on" :to="`/arena/ready/${data.case.id}`" class="button"
              >Into the arena</RouterLink
            >
          </div>
        </header>
        <nav class="tabs" aria-label="The horse's file">
          <RouterLink v-for="t in tabs" :key="t.to" :to="t.to" class="tab" exact-active-class="here">{{ t.name }}</RouterLink>
        </nav>
        <ul v-if="data.forbidden.length" class="forbidden" aria-label="What nobody does for now">
          <li v-for="m in data.forbidden" :key="m.key">{{ m.text }}</li>
        </ul>
        <UnreadNote v-for="u in data.unread" :key="u.id" :entry="u" @aside="load" />
        <RouterView />
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.forbidden {
  border: var(--stroke);
  border-left-width: var(--gap-2);
  padding: var(--gap-2) var(--gap-3);
  margin-bottom: var(--gap-3);
  font-weight: 600;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: var(--gap-3);
  border-bottom: var(--rule);
  padding-bottom: var(--gap-3);
}
.title {
  min-width: min(320px, 100%);
  flex: 1 1 0;
}
.actions {
  align-items: flex-start;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--gap-4);
  margin-bottom: var(--gap-3);
}
.tab {
  padding: var(--gap-3) 0 var(--gap-2);
  color: var(--ink-2);
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
.tab.here {
  color: var(--ink-1);
  font-weight: 700;
  border-bottom-color: var(--leather);
}
</style>
