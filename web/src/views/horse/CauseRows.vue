<script setup lang="ts">
// What is probably behind each problem: a row a cause, a column a problem, each
// cause a plank on a trestle. The likeliest first; in the hand one problem at a
// time, the causes kept in their order.
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import CauseTrestle from '../../parts/CauseTrestle.vue'
import StoneKey from '../../parts/StoneKey.vue'
import { useLeaf } from '../../parts/leaf'
import { useKeys } from '../../keys/keys'

const { result, named, overruled } = defineProps<{
  result: Schemas['AssessResult']
  named: (problem: string) => string
  overruled: Schemas['Overruled'][]
}>()
const rows = 5

const narrow = useMediaQuery('screen and (max-width: 900px)')
const chosen = ref(0)
const problems = computed(() => {
  const one = result.problems[chosen.value] ?? result.problems[0]
  return narrow.value && one ? [one] : result.problems
})
const causeOf = (p: Schemas['AssessProblemResult'], cause: string) => p.causes.find((c) => c.cause === cause)
const looked = computed(() =>
  result.shared.order.filter((cause) => result.problems.some((p) => causeOf(p, cause)?.score !== undefined)),
)
const shown = computed(() => looked.value.slice(0, rows))
const rest = computed(() => result.shared.order.filter((c) => !shown.value.includes(c)))
const name = (cause: string) => result.problems.map((p) => causeOf(p, cause)?.says.text).find(Boolean) ?? cause
/** A finding without what it explains in brackets; the whole is a tap away. */
const brief = (says: string) => says.replace(/ \(.*?\)/g, '')
const reasons = (c: Schemas['AssessCause']) =>
  [...c.for, ...c.against]
    .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight))
    .slice(0, 2)
    .map((e) => ({
      key: e.finding,
      says: `${e.source === 'told' ? 'told: ' : ''}${e.says}`,
      short: `${e.source === 'told' ? 'told: ' : ''}${brief(e.says)}`,
      against: e.weight < 0,
    }))
const otherwise = (problem: string, cause: string) => overruled.find((o) => o.key === `cause.${problem}.${cause}`)

const { at, turn } = useLeaf()
const open = (cause: string) => turn('causes', cause)
useKeys(
  Array.from({ length: rows }, (_, i) => ({
    press: String(i + 1),
    does: `open cause ${i + 1}`,
    run: () => {
      const cause = shown.value[i]
      if (cause) open(cause)
    },
  })),
)
</script>

<template>
  <section class="causes" :style="{ '--problems': problems.length }" aria-labelledby="behind">
    <h2 id="behind" class="visually-hidden">What is probably behind it</h2>
    <div v-if="narrow && result.problems.length > 1" class="pick" role="group" aria-label="Which problem">
      <button v-for="(p, i) in result.problems" :key="p.problem" type="button" :aria-pressed="chosen === i" @click="chosen = i">
        {{ named(p.problem) }}
      </button>
    </div>
    <div class="row head">
      <div class="basis">
        <StoneKey />
      </div>
      <div v-for="p in problems" :key="p.problem" class="column">
        <h3>{{ named(p.problem) }}</h3>
        <p class="small quiet ends"><span>against</span><span>for</span></p>
      </div>
    </div>
    <p v-if="shown.length === 0" class="none">Nothing was found that speaks for or against a cause.</p>
    <div v-for="cause in shown" :key="cause" class="row" @click="open(cause)">
      <RouterLink :to="at('causes', cause)" aria-current-value="false" class="name" @click.stop>{{ name(cause) }}</RouterLink>
      <template v-for="p in problems" :key="p.problem">
        <div v-if="causeOf(p, cause)" class="column" :class="causeOf(p, cause)!.belief.replaceAll(' ', '-')">
          <CauseTrestle :cause="causeOf(p, cause)!" :name="name(cause)" @stone="open(cause)" />
          <p class="belief">
            {{ causeOf(p, cause)!.belief }}
            <span v-if="otherwise(p.problem, cause)" class="small">you: {{ otherwise(p.problem, cause)!.to }}</span>
          </p>
          <ul class="reasons">
            <li v-for="r in reasons(causeOf(p, cause)!)" :key="r.key" :title="r.says">
              <span v-if="r.against" class="quiet">but </span>{{ r.short }}
            </li>
            <li v-if="causeOf(p, cause)!.bound">{{ causeOf(p, cause)!.bound!.text }}</li>
          </ul>
        </div>
      </template>
    </div>
    <p class="rest small">
      <RouterLink :to="at('causes')" aria-current-value="false">{{ rest.length }} more causes</RouterLink>
      <template v-for="c in rest" :key="c"> · {{ name(c) }}</template
      >. <template v-if="result.basis.say.key !== 'basis.seen'">{{ result.basis.say.text }}</template>
    </p>
  </section>
</template>

<style scoped>
.causes {
  border-top: var(--rule);
}
.row {
  display: grid;
  grid-template-columns: 138px repeat(var(--problems), minmax(0, 1fr));
  align-items: center;
  gap: 0 16px;
  min-height: 51px;
  border-bottom: var(--line);
  cursor: pointer;
}
.row.head {
  min-height: 46px;
  align-items: end;
  cursor: default;
}
.basis {
  align-self: center;
}
.name {
  font-weight: 700;
  line-height: 1.25;
  color: var(--ink-1);
  text-decoration: none;
}
.name:hover {
  text-decoration: underline;
}
.name::first-letter,
h3::first-letter {
  text-transform: uppercase;
}
.column {
  display: grid;
  grid-template-columns: 160px 76px minmax(0, 1fr);
  align-items: center;
  gap: 0 10px;
  min-width: 0;
}
.head .column {
  display: block;
}
h3 {
  font-size: var(--part);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.ends {
  display: flex;
  justify-content: space-between;
  width: 160px;
}
.belief {
  line-height: 1.15;
  font-weight: 700;
}
.likely .belief {
  font: 700 1.125rem/1.15 var(--font-head);
}
.unlikely .belief,
.not-enough-seen .belief,
.not-looked-at .belief {
  font-weight: 400;
}
.belief .small {
  display: block;
  font-weight: 600;
}
.reasons {
  font-size: 0.875rem;
  line-height: 1.28;
  color: var(--ink-2);
  min-width: 0;
}
.reasons li {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.rest {
  padding: 5px 0;
  color: var(--ink-2);
  line-height: 1.35;
}
.none {
  padding: var(--gap-3) 0;
}
.pick {
  display: flex;
  gap: var(--gap-2);
  padding: 6px 0;
}
.pick button {
  flex: 1;
  min-height: var(--hand);
  border: 1.5px solid var(--ink-1);
  border-radius: var(--radius);
  background: none;
  cursor: pointer;
}
.pick button::first-letter {
  text-transform: uppercase;
}
.pick button[aria-pressed='true'] {
  background: var(--ink-1);
  color: var(--ivory-0);
}
@media (max-width: 1180px) {
  .reasons {
    display: none;
  }
  .column {
    grid-template-columns: 160px minmax(0, 1fr);
  }
}
@media screen and (max-width: 900px) {
  .row {
    grid-template-columns: minmax(0, 1fr) 250px;
    gap: 0 var(--gap-2);
  }
  .row.head {
    display: none;
  }
  .column {
    grid-template-columns: 160px minmax(0, 1fr);
    gap: 0 var(--gap-2);
  }
}
@media print {
  .row {
    break-inside: avoid;
  }
}
</style>
