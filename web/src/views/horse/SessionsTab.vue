<script setup lang="ts">
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import BeadRope from '../../parts/BeadRope.vue'
import { byAsk } from '../../parts/beads'
import PageState from '../../parts/PageState.vue'
import { answered, count, longDate, sideWord } from '../../words'
import { useHorseFile } from '../../cases/file'

const { file } = useHorseFile()
const { data, trouble, load } = useLoad(() =>
  told(api.GET('/api/horses/{id}/sessions', { params: { path: { id: file.value?.id ?? '' } } })),
)
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
    <div v-if="data?.length === 0" class="sheet stack">
      <h2>No sessions yet</h2>
      <p>The first one begins at the gate: readiness, then the first ask.</p>
      <div><RouterLink :to="`/arena/ready/${file?.case.id}`" class="button">Into the arena</RouterLink></div>
    </div>
    <ol class="stack">
      <li v-for="s in data" :key="s.id" class="sheet stack">
        <div class="row between">
          <h2>{{ longDate(s.date) }}</h2>
          <p class="row">
            <RouterLink v-if="!s.ended" :to="`/arena/${s.id}`">Still open: go on with it</RouterLink>
            <RouterLink :to="`/arena/${s.id}/after`">What it came to</RouterLink>
            <RouterLink :to="`/reports/${s.id}`">Report</RouterLink>
          </p>
        </div>
        <p>
          {{ count(s.minutes, 'minute', 'minutes') }} with {{ s.by }}. {{ answered(s.reps) }} Worked on
          {{ s.asks.join(', ') || 'nothing' }}.
        </p>
        <p v-if="s.events.length" class="wrong">{{ s.events.map((e) => e.kind).join(', ') }}</p>
        <p v-if="s.note" class="quiet">{{ s.note }}</p>
        <ul v-if="s.changes.length" class="row small">
          <li v-for="c in s.changes" :key="c.name + c.variant.text">
            <b>{{ [c.name, c.variant.text].filter(Boolean).join(', ') }}</b> {{ c.from }} → {{ c.now.text }}
          </li>
        </ul>
        <details>
          <summary>All {{ s.beads.length }} reps</summary>
          <div v-for="a in byAsk(s.beads)" :key="a.key" class="ask">
            <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
            <BeadRope :beads="a.beads" />
          </div>
        </details>
      </li>
    </ol>
  </PageState>
</template>

<style scoped>
.wrong {
  color: var(--rust);
  font-weight: 600;
}
summary {
  cursor: pointer;
  min-height: 28px;
}
.ask {
  margin-top: var(--gap-3);
}
</style>
