<script setup lang="ts">
// Who may do which step between the visits: two legs each, and what is missing.
import { computed } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import PageState from '../../parts/PageState.vue'
import { count, shortDate } from '../../words'
import ClearanceRow from './ClearanceRow.vue'

const { caseId } = defineProps<{ caseId: string }>()
const { data, trouble, load } = useLoad(() => told(api.GET('/api/cases/{id}/clearance', { params: { path: { id: caseId } } })))

const nameOf = computed(() => new Map(data.value?.steps.map((s) => [s.step, s])))
const begun = (s: Schemas['ClearanceState']) => s.rehearsed || s.watched > 0 || s.cleared
const persons = computed(() =>
  (data.value?.persons ?? []).map((p) => ({
    ...p,
    begun: (data.value?.states ?? []).filter((s) => s.person === p.id && begun(s)),
    rest: (data.value?.states ?? []).filter((s) => s.person === p.id && !begun(s)),
  })),
)
const label = (step: string) => {
  const s = nameOf.value.get(step)
  return s ? `${s.ladder.split(',')[0]}: ${s.name}` : step
}
</script>

<template>
  <section class="sheet stack clearance">
    <h2>Clearance and homework</h2>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <p v-for="h in data.held" :key="h.key" class="strong">{{ h.text }}</p>
        <p v-if="persons.length === 0" class="quiet">This horse has no owner written down.</p>
        <article v-for="p in persons" :key="p.id" class="stack">
          <div class="row between">
            <h3>{{ p.name }}</h3>
            <RouterLink :to="`/horses/${data.horse.id}/homework/${caseId}/${p.id}`">Homework card</RouterLink>
          </div>
          <p v-if="p.begun.length + p.rest.length === 0" class="quiet">Nothing to clear yet: no step is met.</p>
          <ul>
            <ClearanceRow
              v-for="s in p.begun"
              :key="s.step"
              :state="s"
              :name="label(s.step)"
              :who="p.name"
              :case-id="caseId"
              :words="data"
              @kept="(now) => (data = now)"
            />
          </ul>
          <details v-if="p.rest.length">
            <summary>{{ count(p.rest.length, 'met step', 'met steps') }} nobody rehearsed with {{ p.name }} yet</summary>
            <ul>
              <ClearanceRow
                v-for="s in p.rest"
                :key="s.step"
                :state="s"
                :name="label(s.step)"
                :who="p.name"
                :case-id="caseId"
                :words="data"
                @kept="(now) => (data = now)"
              />
            </ul>
          </details>
        </article>
        <details v-if="data.rehearsals.length" class="small">
          <summary>What was rehearsed</summary>
          <ul class="dots">
            <li v-for="r in data.rehearsals" :key="r.id">
              {{ shortDate(r.on) }}, {{ label(r.step) }}, {{ r.place }}: {{ r.cleared ? 'cleared this leg' : 'not yet' }}
              <span class="quiet">{{ r.by }}</span>
            </li>
          </ul>
        </details>
      </template>
    </PageState>
  </section>
</template>

<style scoped>
.clearance :deep(.wait) {
  min-height: 4em;
}
summary {
  cursor: pointer;
  min-height: 28px;
}
</style>
