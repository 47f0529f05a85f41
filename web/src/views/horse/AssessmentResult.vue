<script setup lang="ts">
// The result of an assessment: what is probably behind it, how dangerous it
// is, whom to ask first, where to begin, and what was not looked at.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import PhotoStrip from '../../parts/PhotoStrip.vue'
import SwapTable from '../../parts/SwapTable.vue'
import { count, shortDate, sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'
import BlockList from './BlockList.vue'
import CauseList from './CauseList.vue'
import OverruleForm from './OverruleForm.vue'
import ReferralList from './ReferralList.vue'

const { assessment, walk, editable, horse } = defineProps<{
  assessment: Schemas['Assessment']
  walk: Assessing
  editable: boolean
  horse: string
}>()

const result = computed(() => assessment.result)
const words = computed(() => walk.data?.words)
const steps = (problem: string) =>
  walk.data?.problems
    .find((p) => p.problem === problem)
    ?.sections.find((s) => s.key === 'E')
    ?.questions.find((q) => q.kind === 'step')
    ?.choices?.map((c) => ({ value: c.value, text: c.says })) ?? []
const said = (list?: string[]) => (list ?? []).map((w) => ({ value: w, text: w }))
const overruled = (key: string) => assessment.overruled.find((o) => o.key === key)
const named = (problem: string) => walk.data?.problems.find((p) => p.problem === problem)?.name.text ?? problem
/** What holds for every problem is said once, the rest with its problem. */
const common = computed(() => new Set<string>(result.value.shared.causes))
const telling = computed(() => result.value.shared.telling?.say.text)
const apart = computed(() =>
  result.value.problems.filter((p) => p.causes.some((c) => !common.value.has(c.cause)) || (p.telling && !telling.value)),
)
const shared = computed(() => result.value.shared.unlooked.map((u) => u.text))
const beside = (p: Schemas['AssessProblemResult']) => p.unlooked.map((u) => u.text).filter((look) => !shared.value.includes(look))
const mark = computed(() => (editable ? walk.mark : undefined))
</script>

<template>
  <div class="result stack">
    <p class="basis">{{ result.basis.say.text }}</p>
    <section v-if="assessment.changes.length" class="sheet stack">
      <h2>What changed since {{ shortDate(assessment.from ?? '') }}</h2>
      <ul class="plain-list">
        <li v-for="c in assessment.changes" :key="c.what.text">
          <b>{{ c.what.text }}</b>: {{ c.before || 'none' }} → {{ c.after || 'none' }}
        </li>
      </ul>
    </section>
    <div class="columns">
      <div class="stack">
        <section v-if="common.size" class="sheet stack">
          <h2>What is probably behind all of it</h2>
          <p v-if="telling" class="telling">{{ telling }}</p>
          <CauseList
            :problem="result.problems[0]!"
            :also="result.problems.slice(1)"
            :only="(c) => common.has(c)"
            :beliefs="words?.beliefs ?? []"
            :overruled="assessment.overruled"
            :mark="mark"
          />
        </section>
        <section v-for="p in apart" :key="p.problem" class="sheet stack">
          <h2>
            What is probably behind it<template v-if="result.problems.length > 1">: {{ named(p.problem) }}</template>
          </h2>
          <p v-if="p.telling && !telling" class="telling">{{ p.telling.say.text }}</p>
          <CauseList
            :problem="p"
            :only="(c) => !common.has(c)"
            :beliefs="words?.beliefs ?? []"
            :overruled="assessment.overruled"
            :mark="mark"
          />
        </section>
        <section v-for="p in result.problems.filter((p) => p.swap)" :key="`swap ${p.problem}`" class="sheet stack">
          <h2>How much is person, tack, horse</h2>
          <SwapTable v-if="p.swap" :swap="p.swap" />
        </section>
        <section class="sheet stack late">
          <h2>Photographs</h2>
          <PhotoStrip :horse="horse" />
        </section>
        <section class="sheet stack late">
          <h2>Not looked at</h2>
          <p v-if="shared.length">{{ shared.join(' · ') }}.</p>
          <template v-for="p in result.problems" :key="p.problem">
            <p v-if="beside(p).length">{{ named(p.problem) }}: {{ beside(p).join(' · ') }}.</p>
          </template>
          <p v-if="result.problems.some((p) => p.unlooked.length)" class="strong">Not checked, so don't assume it's fine.</p>
          <p v-else>Every part was looked at.</p>
        </section>
      </div>
      <div class="stack">
        <section class="sheet stack">
          <h2>Risk</h2>
          <p class="grade">
            {{ result.risk.care }} <small>{{ count(result.risk.points, 'point', 'points') }}</small>
          </p>
          <ul class="dots">
            <li v-for="l in result.risk.lines" :key="l.why.text">{{ l.why.text }} ({{ l.points }})</li>
          </ul>
          <OverruleForm
            what="risk"
            :choices="said(words?.cares)"
            :overruled="overruled('risk')"
            :mark="mark"
            note="A lower grade is kept beside; the precautions of the computed one stay."
          />
          <details>
            <summary>Precautions of {{ result.care }}</summary>
            <ul class="dots">
              <li v-for="p in result.precautions" :key="p.key">{{ p.text }}</li>
            </ul>
          </details>
        </section>
        <section v-if="result.stops.length || result.mismatch" class="sheet stack">
          <h2>Until it is cleared</h2>
          <p v-for="s in result.stops" :key="s.key" class="stop">{{ s.text }}</p>
          <p v-if="result.mismatch">{{ result.mismatch.text }}</p>
        </section>
        <section v-if="result.referrals.length" class="sheet stack">
          <h2>Whom to ask first</h2>
          <ReferralList :referrals="result.referrals" :walk="walk" :horse="horse" :editable="editable" />
        </section>
        <section v-if="result.rechecks.length" class="sheet stack">
          <h2>Rechecks</h2>
          <ul class="dots">
            <li v-for="r in result.rechecks" :key="`${r.item} ${r.day}`">{{ r.reads.text }}</li>
          </ul>
        </section>
        <section v-if="result.blocks.length" class="sheet stack">
          <h2>Blocked</h2>
          <BlockList :blocks="result.blocks" :mark="mark" />
        </section>
        <section class="sheet stack">
          <h2>Where to begin</h2>
          <p v-if="result.first.length">
            First, in this order:
            <b>{{ result.first.map((s) => [s.name, s.variant && sideWord(s.variant)].filter(Boolean).join(' ')).join(', ') }}</b>.
          </p>
          <div v-for="p in result.problems" :key="p.problem" class="stack">
            <p v-if="p.start">
              <template v-if="result.problems.length > 1">{{ named(p.problem) }}: </template>
              <b>{{ p.start.name }}</b>: {{ p.start.ask }}.
              <template v-if="p.start_computed">Computed: {{ p.start_computed.name }}.</template>
            </p>
            <OverruleForm
              :what="`start.${p.problem}`"
              :choices="steps(p.problem)"
              :overruled="overruled(`start.${p.problem}`)"
              :mark="mark"
            />
            <p>{{ p.school.why.text }}</p>
            <OverruleForm
              :what="`school.${p.problem}`"
              :choices="said(words?.schools)"
              :overruled="overruled(`school.${p.problem}`)"
              :mark="mark"
            />
          </div>
        </section>
        <section v-if="result.tack.length" class="sheet stack">
          <h2>Tack</h2>
          <ul class="dots">
            <li v-for="t in result.tack" :key="t.text">{{ t.text }}</li>
          </ul>
        </section>
        <p class="quiet small">This does not replace a vet, a dentist, a farrier or a saddle fitter. In doubt, ask them first.</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--gap-3);
  align-items: start;
}
.basis {
  font-size: var(--step-2);
}
.telling {
  font-weight: 600;
  border-block: var(--rule);
  padding: var(--gap-2) 0;
}
.grade {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
.grade small {
  font: 400 var(--step-1) var(--font-ui);
}
.stop {
  color: var(--rust);
  font-weight: 600;
}
summary {
  cursor: pointer;
  min-height: var(--control);
  align-content: center;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  /* in one column, what to do about it comes before pictures and gaps */
  .columns > .stack {
    display: contents;
  }
  .late {
    order: 1;
  }
}
</style>
