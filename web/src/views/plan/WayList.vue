<script setup lang="ts">
// The ladders in the plan's order, each with its school and what speaks against
// the others, and its steps.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { count } from '../../words'
import PlanSteps from './PlanSteps.vue'
import type { Change, PlanView } from './usePlan'
import { problemWord } from './words'

const { view, change } = defineProps<{ view: PlanView; change: Change }>()

const all = computed(() => view.now.ways.map((w) => ({ ...w, items: view.now.items.filter((i) => i.ladder === w.ladder) })))
const done = computed(() => all.value.filter((w) => !w.problem && w.left === 0 && !w.chosen))
const ways = computed(() => all.value.filter((w) => !done.value.includes(w)))
const later = computed(() => view.problems.filter((p) => !p.main))
/** What a ladder is for, where its name does not say so. */
function purpose(w: Schemas['PlanWay']): string {
  const word = w.problem ? problemWord(view, w.problem).toLowerCase() : ''
  return word === w.name.toLowerCase() ? '' : word
}

const owns = (ladder: string) => view.own_ladders.filter((o) => o.ladder === ladder)

function school(ladder: string, name: string) {
  void change((c) => {
    c.schools = { ...c.schools, [ladder]: name as never }
  })
}

function put(problem: string, off: boolean) {
  void change((c) => {
    c.goals = { ...c.goals, [problem]: { ...c.goals?.[problem], later: off } }
  })
}

function use(ladder: string, value: string) {
  void change((c) => {
    const chosen = owns(ladder).find((o) => o.id === value)
    const others = Object.entries(c.own ?? {}).filter(([key]) => key !== ladder)
    const own = Object.fromEntries(chosen ? [...others, [ladder, { id: chosen.id, version: chosen.version }]] : others)
    c.own = own
  })
}
</script>

<template>
  <section class="sheet stack">
    <h2>The order of work</h2>
    <p v-if="view.problems.length > 1" class="quiet">
      Foundations that problems share are worked once. Safety comes first, then the date, then what is nearest done.
    </p>
    <div v-if="later.length" class="row">
      <template v-for="p in later" :key="p.problem">
        <span>{{ p.name.text }}:</span>
        <ElButton v-if="p.later" @click="put(p.problem, false)">Take it into this plan</ElButton>
        <ElButton v-else @click="put(p.problem, true)">Leave it for later</ElButton>
      </template>
    </div>
    <p v-if="done.length">
      <span class="quiet met">Met already:</span>
      <template v-for="(w, i) in done" :key="w.ladder">
        <template v-if="i > 0">, </template><RouterLink :to="`/methods/${w.ladder}`">{{ w.name }}</RouterLink>
      </template>
    </p>
    <p v-if="view.now.good.length">
      <span class="quiet">Seen good at the assessment, and not taught again:</span>
      {{ view.now.good.map((g) => g.name).join(', ') }}.
    </p>
    <article v-for="w in ways" :key="w.ladder" class="way stack">
      <header class="row between">
        <h3>
          {{ w.name }}<span v-if="purpose(w)" class="quiet">, for {{ purpose(w) }}</span>
        </h3>
        <p class="quiet small">
          <RouterLink :to="`/methods/${w.ladder}`">Read the method</RouterLink>
          · {{ w.left ? count(w.left, 'step to go', 'steps to go') : 'all met' }}{{ w.barred ? `, ${w.barred} barred` : '' }}
        </p>
      </header>
      <p>{{ w.why.text }}</p>
      <div v-if="w.options.length > 1" role="group" :aria-label="`School of ${w.name}`" class="schools">
        <button
          v-for="o in w.options"
          :key="o.school"
          type="button"
          class="school"
          :aria-pressed="o.school === w.school"
          @click="school(w.ladder, o.school)"
        >
          <b>{{ o.school }}</b>
          <span v-if="o.usual" class="small">the usual way</span>
          <span v-for="a in o.avoid" :key="a.key" class="small against">{{ a.text }}</span>
          <span v-if="!o.named" class="small">not one this ladder names</span>
        </button>
      </div>
      <div v-if="owns(w.ladder).length" class="row">
        <label :for="`own-${w.ladder}`">Which ladder</label>
        <select
          :id="`own-${w.ladder}`"
          class="choose"
          :value="view.choices.own?.[w.ladder]?.id ?? ''"
          @change="(e) => use(w.ladder, (e.target as HTMLSelectElement).value)"
        >
          <option value="">as shipped</option>
          <option v-for="o in owns(w.ladder)" :key="o.id" :value="o.id">{{ o.name }}, version {{ o.version }}</option>
        </select>
        <span v-if="view.choices.own?.[w.ladder]" class="quiet small">
          in use: version {{ view.choices.own[w.ladder]?.version }}
        </span>
      </div>
      <details v-if="w.items.length" :open="w.left > 0 && w.left < 9">
        <summary>{{ count(w.items.length, 'step', 'steps') }} in this plan</summary>
        <PlanSteps :items="w.items" :next="view.now.next ?? ''" :today="view.today" />
      </details>
    </article>
    <p v-if="view.now.done?.length" class="quiet">{{ count(view.now.done.length, 'step is', 'steps are') }} kept and left out.</p>
  </section>
</template>

<style scoped>
.met {
  margin-right: var(--gap-2);
}
.way {
  border-top: var(--line);
  padding-top: var(--gap-3);
  gap: var(--gap-2);
}
.schools {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: var(--gap-2);
}
.school {
  display: grid;
  align-content: start;
  text-align: left;
  padding: var(--gap-2) var(--gap-3);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  cursor: pointer;
}
.school[aria-pressed='true'] {
  background: var(--ink-1);
  border-color: var(--ink-1);
  color: var(--ivory-0);
}
.against::before {
  content: '– ';
}
.choose {
  font: inherit;
  min-height: var(--control);
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: inherit;
  max-width: 100%;
}
summary {
  cursor: pointer;
  min-height: var(--control);
  align-content: center;
}
</style>
