<script setup lang="ts">
// The one look that would settle most: a question and an act.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'

const { result, named, into } = defineProps<{
  result: Schemas['AssessResult']
  named: (problem: string) => string
  /** The walk of the assessment. */
  into: string
}>()
const telling = computed(() => {
  const list = result.problems.flatMap((p) => (p.telling ? [{ problem: p.problem, t: p.telling }] : []))
  return list.filter((a, i) => list.findIndex((b) => b.t.look === a.t.look) === i)
})
const first = computed(() => telling.value[0])
/** Seen on film only, and weighing most. */
const inPerson = computed(() => [
  ...new Map(result.problems.flatMap((p) => p.in_person).map((e) => [e.finding, e.says])).values(),
])
</script>

<template>
  <section v-if="first" class="next" aria-labelledby="look-next">
    <h2 id="look-next">Look next</h2>
    <svg viewBox="0 0 54 32" width="54" height="32" aria-hidden="true">
      <path d="M2 16Q27 -9 52 16Q27 41 2 16Z" class="eye" />
      <circle cx="27" cy="16" r="7.5" />
    </svg>
    <div class="says">
      <p class="question">{{ first.t.ask.text }}</p>
      <p>
        {{ first.t.gain.text }}
        <template v-for="o in telling.slice(1)" :key="o.problem"> For {{ named(o.problem) }}: {{ o.t.ask.text }}</template>
      </p>
    </div>
    <RouterLink :to="`${into}?at=${first.t.section}`" class="button no-print">Look now</RouterLink>
  </section>
  <p v-if="inPerson.length" class="in-person">
    <b>See in person first:</b> {{ inPerson.join(' · ') }}.
    <span class="quiet small">Seen on video only, and it weighs most.</span>
  </p>
</template>

<style scoped>
.next {
  display: grid;
  grid-template-columns: 124px 54px minmax(0, 1fr) auto;
  align-items: center;
  gap: 0 14px;
  margin: 0 calc(-1 * var(--side));
  padding: 8px var(--side);
  min-height: 62px;
  background: var(--ivory-1);
  border-block: 1px solid var(--ink-1);
}
h2 {
  font-size: 1.0625rem;
}
.eye {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 2.6;
}
circle {
  fill: var(--ink-1);
}
.question {
  font: 700 1.125rem/1.2 var(--font-head);
}
.says {
  line-height: 1.3;
}
.in-person {
  margin: 0;
  padding: var(--gap-2) 0;
}
@media screen and (max-width: 720px) {
  .next {
    grid-template-columns: 40px minmax(0, 1fr);
  }
  h2 {
    display: none;
  }
  svg {
    width: 40px;
  }
  .next .button {
    grid-column: 1 / -1;
    min-height: 52px;
    margin-top: 6px;
  }
}
</style>
