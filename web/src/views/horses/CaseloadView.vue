<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import { bringAlong, broughtAlong } from '../../offline/bringAlong'
import { clockTime, count } from '../../words'
import PageState from '../../parts/PageState.vue'
import CaseRow from './CaseRow.vue'

const { data, trouble, load } = useLoad(() => told(api.GET('/api/caseload')))
const typed = ref('')

watch(data, (rows) => {
  const worked = (rows ?? []).filter((r) => !r.case.finished_on)
  if (worked.length) setTimeout(() => void bringAlong(worked), 1500) // after the first view has shown
})

const rows = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (data.value ?? []).filter((r) => {
    const text = [r.name, r.yard, r.case.goal, r.care, ...r.owners].join(' ').toLowerCase()
    return words.every((w) => text.includes(w))
  })
})
const wanting = computed(() => rows.value.filter((r) => r.attention.length > 0 || r.open_session))
const others = computed(() => rows.value.filter((r) => !wanting.value.includes(r) && !r.case.finished_on))
const finished = computed(() => rows.value.filter((r) => r.case.finished_on))

const groups = computed(() =>
  [
    { title: 'Wants attention', rows: wanting.value },
    { title: 'Going on', rows: others.value },
    { title: 'Finished', rows: finished.value },
  ].filter((g) => g.rows.length > 0),
)
</script>

<template>
  <div class="page">
    <header class="page-head row between">
      <div>
        <h1>Horses</h1>
        <p v-if="broughtAlong.horses" class="quiet small" role="status">
          {{ count(broughtAlong.horses, 'horse', 'horses') }} kept for the yard at {{ clockTime(broughtAlong.at) }}
        </p>
      </div>
      <div class="row tools">
        <input
          v-if="data?.length"
          v-model="typed"
          type="search"
          class="filter"
          placeholder="Horse, owner or yard"
          aria-label="Filter the horses"
        />
        <RouterLink to="/horses/new" class="button">Take on a horse</RouterLink>
      </div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <div v-if="data?.length === 0" class="sheet stack empty">
        <h2>No horses yet</h2>
        <p>Take on the first one: its name, its owner, and how you will know it's fixed. The rest can wait.</p>
        <div><RouterLink to="/horses/new" class="button">Take on a horse</RouterLink></div>
      </div>
      <p v-else-if="rows.length === 0">No horse fits “{{ typed }}”. Type less of it.</p>
      <section v-for="g in groups" :key="g.title" class="group">
        <h2>{{ g.title }}</h2>
        <ul class="rows">
          <CaseRow v-for="r in g.rows" :key="r.id" :row="r" />
        </ul>
      </section>
    </PageState>
  </div>
</template>

<style scoped>
.group {
  margin-bottom: var(--gap-4);
}
.group h2 {
  color: var(--leather);
  margin-bottom: var(--gap-2);
}
.rows {
  background: var(--ivory-0);
  border: var(--line);
  border-radius: var(--radius);
}
.filter {
  font: inherit;
  min-height: var(--control);
  padding: 0 var(--gap-2);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: inherit;
  min-width: 0;
  flex: 1 1 0;
}
.tools {
  flex: 0 1 460px;
  flex-wrap: nowrap;
  justify-content: flex-end;
}
.tools .button {
  flex: none;
}
.empty {
  max-width: var(--measure);
}
</style>
