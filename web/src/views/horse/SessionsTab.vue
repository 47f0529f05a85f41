<script setup lang="ts">
// The sessions, told as a line each and opened on a tap.
import { computed } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import BeadRope from '../../parts/BeadRope.vue'
import { byAsk } from '../../parts/beads'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import { answered, count, dayMonth, inWords, longDate, sideWord } from '../../words'
import ProposedVisit from '../../cases/ProposedVisit.vue'
import { isHelper } from '../../api/me'
import { useHorseFile } from '../../cases/file'
import NotebookLines from './NotebookLines.vue'

type Session = Schemas['SessionRow']

const { file } = useHorseFile()
const { data, trouble, at, load } = useLoad(() =>
  told(api.GET('/api/horses/{id}/sessions', { params: { path: { id: file.value?.id ?? '' } } })),
)
const newest = computed(() => data.value?.[0])
const changed = (s: Session) =>
  s.changes.map((c) => `${[c.name, c.variant.text].filter(Boolean).join(', ')} ${c.now.text}`).join('; ')
const links = computed(() => [{ to: `/arena/memory/${file.value?.case.id}`, name: 'log one from memory' }])
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
    <div class="leafpage">
      <section v-if="!newest" class="none">
        <h2 class="lead">No sessions yet</h2>
        <p>The first one begins at the gate: readiness, then the first ask.</p>
        <div><RouterLink :to="`/arena/ready/${file?.case.id}`" class="button">Into the arena</RouterLink></div>
      </section>
      <template v-else>
        <p class="lead top">
          {{ inWords(data?.length ?? 0, true) }} {{ data?.length === 1 ? 'session' : 'sessions' }}, the last on
          {{ longDate(newest.date) }}.
        </p>
        <ol>
          <li v-for="s in data" :key="s.id">
            <details>
              <summary>
                <b class="day">{{ dayMonth(s.date) }}</b>
                <span class="clamp">{{ s.asks.join(', ') || 'nothing' }}</span>
                <span class="result">{{ s.reps.n ? `${s.reps.good} of ${s.reps.n} good` : 'none counted' }}</span>
                <span class="clamp change">
                  <span v-if="s.events.length" class="wrong">{{ s.events.map((e) => e.kind).join(', ') }}. </span>
                  <span v-if="!s.ended" class="wrong">Still open. </span>
                  {{ changed(s) || s.note }}
                </span>
              </summary>
              <div class="opened stack">
                <p>
                  {{ count(s.minutes, 'minute', 'minutes') }} with {{ s.by }}. {{ answered(s.reps) }} Worked on
                  {{ s.asks.join(', ') || 'nothing' }}.
                </p>
                <p v-if="s.note">{{ s.note }}</p>
                <ul v-if="s.changes.length" class="row">
                  <li v-for="c in s.changes" :key="c.name + c.variant.text" class="plain">
                    <b>{{ [c.name, c.variant.text].filter(Boolean).join(', ') }}</b> {{ c.from }} → {{ c.now.text }}
                  </li>
                </ul>
                <div v-for="a in byAsk(s.beads)" :key="a.key">
                  <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
                  <BeadRope :beads="a.beads" />
                </div>
              </div>
            </details>
            <p class="ways">
              <RouterLink v-if="!s.ended" :to="`/arena/${s.id}`">Go on with it</RouterLink>
              <RouterLink :to="`/arena/${s.id}/after`">What it came to</RouterLink>
              <RouterLink :to="`/reports/${s.id}`">Report</RouterLink>
            </p>
          </li>
        </ol>
        <ProposedVisit v-if="file && !file.case.finished_on && !isHelper" :horse="file.id" />
      </template>
      <OneTap :links="links" />
      <NotebookLines v-if="file" :key="file.id" :horse="file.id" />
    </div>
  </PageState>
</template>

<style scoped>
.none {
  display: grid;
  gap: var(--gap-2);
  padding: var(--gap-4) 0;
}
.top {
  padding: 11px 0 8px;
}
ol {
  border-top: var(--rule);
}
ol > li {
  position: relative;
  border-bottom: var(--line);
}
summary {
  display: grid;
  grid-template-columns: 72px minmax(0, 1.2fr) 106px minmax(0, 1.4fr) 200px;
  gap: 0 var(--gap-3);
  align-items: center;
  min-height: 48px;
  list-style: none;
  cursor: pointer;
  line-height: 1.3;
}
summary::-webkit-details-marker {
  display: none;
}
.day {
  font: 700 1.0313rem var(--font-head);
}
.day::before {
  content: '▸ ';
  font-size: 0.75rem;
  color: var(--ink-2);
}
details[open] .day::before {
  content: '▾ ';
}
.change {
  color: var(--ink-2);
}
.ways {
  position: absolute;
  top: 0;
  right: 0;
  display: flex;
  gap: var(--gap-3);
  min-height: 48px;
  align-items: center;
}
.opened {
  padding: var(--gap-2) 0 var(--gap-4) 86px;
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
@media (max-width: 900px) {
  summary {
    grid-template-columns: 72px minmax(0, 1fr) auto;
    padding: 8px 0 44px;
  }
  .change {
    grid-column: 1 / -1;
  }
  .ways {
    top: auto;
    right: auto;
    bottom: 0;
    min-height: var(--hand);
  }
  details[open] + .ways {
    position: static;
  }
  details[open] summary {
    padding-bottom: 8px;
  }
  .opened {
    padding-left: 0;
  }
}
</style>
