<script setup lang="ts">
// Will the date be met: the band on a time line for each goal, and the levers
// that would help, each with what it comes to. A lever is tried by one tap.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import FieldRow from '../../parts/FieldRow.vue'
import { dayMonth, shortDate } from '../../words'
import { problemWord } from './words'
import LeverRow from './LeverRow.vue'
import StepCount from './StepCount.vue'
import { pull, type Change, type PlanView } from './usePlan'

const { view, busy, change } = defineProps<{ view: PlanView; busy: boolean; change: Change }>()

type Goal = Schemas['PlanGoalForecast']

const goals = computed(() => view.now.forecast)
const owner = computed(() => view.owners.length > 0)
const untilName = (key: string) => view.bridges.flatMap((b) => b.planks).find((p) => p.step === key)?.name ?? key

const visits = (g: Goal) => g.help.filter((h) => h.kind === 'more visits')
const others = (g: Goal) => g.help.filter((h) => h.kind !== 'more visits')

const wanted = computed(() => Object.entries(view.choices.goals ?? {}).filter(([, w]) => w.until))

function whole(problem: string) {
  void change((c) => {
    c.goals = { ...c.goals, [problem]: { ...c.goals?.[problem], until: '' } }
  })
}
</script>

<template>
  <section class="sheet stack" :aria-busy="busy">
    <h2>The numbers</h2>
    <article v-for="(g, i) in goals" :key="g.problem" class="stack goal">
      <h3 v-if="goals.length > 1">
        {{ problemWord(view, g.problem) }}<span v-if="i > 0" class="quiet">, with all that comes before it</span>
      </h3>
      <p class="says">
        <b v-if="g.word" class="word">{{ Math.round(g.p * 100) }} %, {{ g.word }}.</b> {{ g.says.text }}
      </p>
      <table v-if="g.boards.length" class="table">
        <caption class="small quiet">
          Chance that it is done after each visit, at this pace
        </caption>
        <tbody>
          <tr>
            <th scope="row">By</th>
            <td v-for="b in g.boards" :key="b.on">{{ dayMonth(b.on) }}</td>
          </tr>
          <tr>
            <th scope="row">Chance</th>
            <td v-for="b in g.boards" :key="b.on">{{ Math.round(b.p * 100) }} %</td>
          </tr>
        </tbody>
      </table>
      <p v-else-if="g.remaining" class="quiet">Nothing can be put on a time line: no visits a week, or over three years.</p>
      <div v-if="g.help.length" class="stack">
        <h3>What would help</h3>
        <ul class="levers">
          <LeverRow v-if="visits(g).length" says="More visits a week">
            <ElButton v-for="h in visits(g)" :key="h.visits_per_week" :disabled="busy" @click="pull(change, g.problem, h)">
              <span class="visually-hidden">Try it: {{ h.says.text }}</span>
              <span aria-hidden="true">{{ h.visits_per_week }}: {{ Math.round(h.p * 100) }} %</span>
            </ElButton>
          </LeverRow>
          <LeverRow v-for="h in others(g)" :key="h.kind" :says="h.says.text" :p="h.p">
            <ElButton :disabled="busy" @click="pull(change, g.problem, h)"
              >Try it<span class="visually-hidden">: {{ h.says.text }}</span></ElButton
            >
          </LeverRow>
        </ul>
      </div>
    </article>
    <div class="pace">
      <StepCount
        label="Visits a week"
        :value="view.choices.visits_per_week ?? 2"
        :most="14"
        @change="(n) => change((c) => (c.visits_per_week = n))"
      />
      <StepCount
        label="Homework a week"
        :value="view.choices.homework_per_week ?? 0"
        :most="14"
        :hint="owner ? '' : 'no owner to do it'"
        @change="(n) => change((c) => (c.homework_per_week = n))"
      />
      <FieldRow v-if="view.by" v-slot="f" label="A later date, as agreed" :hint="`the case says ${shortDate(view.by)}`">
        <input
          :id="f.id"
          type="date"
          class="date"
          :value="view.choices.by ?? ''"
          :min="view.today"
          @change="(e) => change((c) => (c.by = (e.target as HTMLInputElement).value))"
        />
      </FieldRow>
    </div>
    <p v-for="[problem, w] in wanted" :key="problem" class="row">
      <span>{{ problemWord(view, problem) }}: a smaller goal, up to {{ untilName(w.until ?? '') }}.</span>
      <ElButton link @click="whole(problem)">The whole ladder again</ElButton>
    </p>
  </section>
</template>

<style scoped>
.goal + .goal {
  border-top: var(--line);
  padding-top: var(--gap-3);
}
.says {
  max-width: var(--measure);
}
.word {
  font-size: var(--step-2);
}
.table {
  display: block;
  overflow-x: auto;
  border-collapse: collapse;
}
.table th,
.table td {
  padding: 2px var(--gap-2) 2px 0;
  text-align: left;
  white-space: nowrap;
}
.levers {
  display: grid;
  gap: var(--gap-2);
}
.pace {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-4);
  border-top: var(--line);
  padding-top: var(--gap-3);
}
.date {
  font: inherit;
  min-height: var(--control);
  border: 1px solid var(--ink-2);
  border-radius: var(--radius);
  padding: 0 var(--gap-2);
  background: var(--ivory-0);
  color: inherit;
}
</style>
