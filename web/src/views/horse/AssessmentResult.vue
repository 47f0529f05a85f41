<script setup lang="ts">
// The result of an assessment: its front on one screen, and behind it all findings,
// what was not looked at, what is blocked, and where the trainer judges otherwise.
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '../../api/types'
import PhotoStrip from '../../parts/PhotoStrip.vue'
import SwapTable from '../../parts/SwapTable.vue'
import { count, shortDate } from '../../words'
import type { Assessing } from '../../cases/useAssessment'
import BlockList from './BlockList.vue'
import CauseList from './CauseList.vue'
import OverruleForm from './OverruleForm.vue'
import ReferralList from './ReferralList.vue'
import ResultFront from './ResultFront.vue'

const { assessment, walk, editable, horse, into } = defineProps<{
  assessment: Schemas['Assessment']
  walk: Assessing
  editable: boolean
  horse: string
  into: string
}>()

const route = useRoute()
const see = computed(() => String(route.query.see ?? ''))
const cause = computed(() => String(route.query.cause ?? ''))
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
const apart = computed(() => result.value.problems.filter((p) => p.causes.some((c) => !common.value.has(c.cause))))
const shared = computed(() => result.value.shared.unlooked.map((u) => u.text))
const beside = (p: Schemas['AssessProblemResult']) => p.unlooked.map((u) => u.text).filter((look) => !shared.value.includes(look))
const older = computed(() => (walk.data?.all ?? []).filter((a) => a.id !== assessment.id))
const mark = computed(() => (editable ? walk.mark : undefined))
</script>

<template>
  <ResultFront v-if="!see" :assessment="assessment" :named="named" :into="into" :horse="horse" :current="editable" />
  <div v-else-if="see === 'causes'" class="behind">
    <p>{{ result.basis.say.text }}</p>
    <section v-if="common.size" class="sheet stack">
      <h2>What is probably behind all of it</h2>
      <CauseList
        :problem="result.problems[0]!"
        :also="result.problems.slice(1)"
        :only="(c) => common.has(c)"
        :beliefs="words?.beliefs ?? []"
        :overruled="assessment.overruled"
        :opened="cause"
        :mark="mark"
      />
    </section>
    <section v-for="p in apart" :key="p.problem" class="sheet stack">
      <h2>
        What is probably behind it<template v-if="result.problems.length > 1">: {{ named(p.problem) }}</template>
      </h2>
      <p v-if="p.telling" class="strong">{{ p.telling.say.text }}</p>
      <CauseList
        :problem="p"
        :only="(c) => !common.has(c)"
        :beliefs="words?.beliefs ?? []"
        :overruled="assessment.overruled"
        :opened="cause"
        :mark="mark"
      />
    </section>
    <section v-for="p in result.problems.filter((p) => p.swap)" :key="`swap ${p.problem}`" class="sheet stack">
      <h2>How much is person, tack, horse</h2>
      <SwapTable v-if="p.swap" :swap="p.swap" />
    </section>
    <section class="sheet stack">
      <h2>Photographs</h2>
      <PhotoStrip :horse="horse" />
    </section>
  </div>
  <section v-else-if="see === 'looks'" class="behind stack">
    <h2>Not looked at</h2>
    <p v-if="shared.length">{{ shared.join(' · ') }}.</p>
    <template v-for="p in result.problems" :key="p.problem">
      <p v-if="beside(p).length">{{ named(p.problem) }}: {{ beside(p).join(' · ') }}.</p>
    </template>
    <p v-if="result.problems.some((p) => p.unlooked.length)" class="strong">Not checked, so don't assume it's fine.</p>
    <p v-else>Every part was looked at.</p>
  </section>
  <div v-else-if="see === 'ask'" class="behind">
    <section class="stack">
      <h2>Whom to ask first</h2>
      <p v-if="result.referrals.length === 0">Of what was seen, nobody has to be asked.</p>
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
    <section v-if="result.tack.length" class="sheet stack">
      <h2>Tack</h2>
      <ul class="dots">
        <li v-for="t in result.tack" :key="t.text">{{ t.text }}</li>
      </ul>
    </section>
  </div>
  <div v-else-if="see === 'otherwise'" class="behind">
    <section class="stack">
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
    </section>
    <section v-for="p in result.problems" :key="p.problem" class="sheet stack">
      <h2>
        Where to begin<template v-if="result.problems.length > 1">: {{ named(p.problem) }}</template>
      </h2>
      <p v-if="p.start">
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
    </section>
  </div>
  <section v-else class="behind stack">
    <h2>What changed since {{ shortDate(assessment.from ?? '') }}</h2>
    <ul class="plain-list">
      <li v-for="c in assessment.changes" :key="c.what.text">
        <b>{{ c.what.text }}</b>: {{ c.before || 'none' }} → {{ c.after || 'none' }}
      </li>
    </ul>
    <p v-if="assessment.changes.length === 0">Nothing.</p>
    <p v-if="older.length">
      As it was judged on
      <template v-for="(a, i) in older" :key="a.id">
        <template v-if="i > 0">, </template
        ><RouterLink :to="{ query: { of: a.id } }">{{ shortDate(a.on) }}</RouterLink> </template
      >.
    </p>
  </section>
</template>

<style scoped>
.behind {
  padding: var(--gap-3) 0;
  max-width: 100ch;
}
.grade {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
.grade small {
  font: 400 var(--step-1) var(--font-ui);
}
</style>
