<script setup lang="ts">
// The result on one screen: what is forbidden, what is likely behind each problem,
// the look that would settle most, then care, whom to ask, and where to begin.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { useHorseFile } from '../../cases/file'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import { dayMonth, sideWord } from '../../words'
import CauseRows from './CauseRows.vue'
import LookNext from './LookNext.vue'
import ResultGate from './ResultGate.vue'

const { assessment, named, into, horse, current } = defineProps<{
  assessment: Schemas['Assessment']
  named: (problem: string) => string
  into: string
  horse: string
  /** It is the newest: the bridges as they stand go with it. */
  current: boolean
}>()
const { file } = useHorseFile()
const result = computed(() => assessment.result)
const first = computed(() =>
  result.value.first.map((s) => [s.name, s.variant && sideWord(s.variant)].filter(Boolean).join(' ')).join(', '),
)
const bridges = computed(() => (current && file.value ? [file.value.bridge, ...file.value.others] : []))
</script>

<template>
  <div>
    <ResultGate :gate="result.gate" />
    <CauseRows :result="result" :named="named" :overruled="assessment.overruled" />
    <LookNext :result="result" :named="named" :into="into" />
    <div class="columns">
      <section aria-labelledby="care">
        <h2 id="care">Care</h2>
        <p>{{ result.precautions.map((p) => p.text).join(' ') }}</p>
        <p v-for="s in result.stops" :key="s.key" class="strong">{{ s.text }}</p>
        <p v-if="result.mismatch" class="strong">{{ result.mismatch.text }}</p>
      </section>
      <section aria-labelledby="ask-first">
        <h2 id="ask-first">Ask first</h2>
        <p v-if="result.referrals.length === 0" class="quiet">Of what was seen, nobody has to be asked.</p>
        <ol>
          <li v-for="(r, i) in result.referrals" :key="r.key">
            <b class="number">{{ i + 1 }}</b>
            <span
              ><b class="who">{{ r.who }}</b
              >, {{ r.done ? 'answered' : `due ${dayMonth(r.due)}` }}. {{ r.why.text }}
              <RouterLink :to="`/horses/${horse}/letter/${encodeURIComponent(r.key)}`" class="no-print">Write</RouterLink></span
            >
          </li>
        </ol>
        <p v-for="r in result.rechecks.slice(0, 2)" :key="`${r.item} ${r.day}`">{{ r.reads.text }}</p>
        <p class="quiet small">This does not replace a vet, a dentist, a farrier or a saddle fitter. In doubt, ask them first.</p>
      </section>
      <section aria-labelledby="begin">
        <h2 id="begin">Begin here</h2>
        <p v-if="first"><b>Basics first:</b> {{ first }}.</p>
        <div v-for="p in result.problems" :key="p.problem" class="begin">
          <p>
            <b class="who">{{ named(p.problem) }}</b><template v-if="p.start">: {{ p.start.name }}</template
            >, {{ p.school.school }}
          </p>
          <template v-for="b in bridges" :key="b.ladder"><BridgeStrip v-if="b.ladder === p.ladder" :bridge="b" /></template>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.1fr);
  gap: 0 22px;
  padding: 9px 0 var(--gap-2);
}
.columns section + section {
  padding-left: 22px;
  border-left: var(--line);
}
h2 {
  font-size: var(--part);
  margin-bottom: 2px;
}
p,
li {
  line-height: 1.35;
}
li {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
}
.number,
.who {
  font-family: var(--font-head);
}
.who::first-letter {
  text-transform: uppercase;
}
.begin {
  padding-top: 3px;
  border-top: var(--line);
}
.begin p::first-letter {
  text-transform: uppercase;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .columns section + section {
    margin-top: var(--gap-2);
    padding: var(--gap-2) 0 0;
    border-left: 0;
    border-top: var(--line);
  }
}
</style>
