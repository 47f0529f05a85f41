<script setup lang="ts">
// The ten causes: what speaks for each and against it, largest first.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import BeliefMark from '../../parts/BeliefMark.vue'
import type { Put } from '../../cases/useAssessment'
import OverruleForm from './OverruleForm.vue'

const {
  problem,
  also = [],
  only,
  beliefs,
  overruled,
  opened = '',
  mark = undefined,
} = defineProps<{
  problem: Schemas['AssessProblemResult']
  /** Further problems for which the same is said. */
  also?: Schemas['AssessProblemResult'][]
  /** The causes that are shown. */
  only: (cause: string) => boolean
  beliefs: string[]
  overruled: Schemas['Overruled'][]
  /** The cause that is open at first. */
  opened?: string
  mark?: Put
}>()

const shown = computed(() => problem.causes.filter((c) => only(c.cause)))
const known = computed(() => shown.value.filter((c) => c.belief !== 'not looked at'))
const open = computed(() => shown.value.filter((c) => c.belief === 'not looked at'))
const choices = computed(() => beliefs.map((b) => ({ value: b, text: b })))
const key = (cause: string) => `cause.${problem.problem}.${cause}`
const by = (cause: string) => overruled.find((o) => o.key === key(cause))
</script>

<template>
  <ul class="causes">
    <li v-for="c in known" :key="c.cause">
      <details :open="c.cause === opened">
        <summary>
          <BeliefMark :belief="by(c.cause)?.to ?? c.belief" />
          <span
            ><b>{{ c.belief }}</b
            >: {{ c.says.text }}
            <small v-if="by(c.cause)">you: {{ by(c.cause)?.to }}, {{ by(c.cause)?.reason }}</small>
            <small v-else-if="c.for[0]">{{ c.for[0].says }}</small>
            <small v-else-if="c.against[0]">against: {{ c.against[0].says }}</small>
          </span>
        </summary>
        <div class="evidence stack">
          <p v-if="c.bound">{{ c.bound.text }}</p>
          <p v-if="c.if_seen">Had all of it been seen in person: {{ c.if_seen }}.</p>
          <table>
            <tbody>
              <tr v-for="e in [...c.for, ...c.against]" :key="e.finding">
                <th scope="row">{{ e.says }}</th>
                <td>{{ e.source }}</td>
                <td class="number">{{ e.weight > 0 ? 'for' : 'against' }} {{ Math.abs(e.weight).toFixed(2) }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="c.score !== undefined" class="quiet">Comes to {{ Math.round(c.score * 100) }} %.</p>
          <OverruleForm
            :what="key(c.cause)"
            :choices="choices"
            :overruled="by(c.cause)"
            :mark="mark"
            :note="also.length ? `For ${problem.problem}.` : ''"
          />
          <OverruleForm
            v-for="p in also"
            :key="p.problem"
            :what="`cause.${p.problem}.${c.cause}`"
            :choices="choices"
            :overruled="overruled.find((o) => o.key === `cause.${p.problem}.${c.cause}`)"
            :mark="mark"
            :note="`For ${p.problem}.`"
          />
        </div>
      </details>
    </li>
  </ul>
  <p v-if="open.length" class="open">
    <BeliefMark belief="not looked at" />
    <span>Not looked at: {{ open.map((c) => c.says.text).join(' · ') }}.</span>
  </p>
</template>

<style scoped>
.causes li + li {
  border-top: var(--line);
}
summary {
  display: flex;
  gap: var(--gap-2);
  align-items: flex-start;
  padding: var(--gap-2) 0;
  cursor: pointer;
}
small {
  display: block;
}
.evidence {
  padding: 0 0 var(--gap-3) 22px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-weight: 400;
}
th,
td {
  padding: var(--gap-1) var(--gap-2) var(--gap-1) 0;
  border-top: var(--line);
  vertical-align: top;
}
.number {
  text-align: right;
  white-space: nowrap;
}
.open {
  display: flex;
  gap: var(--gap-2);
}
</style>
