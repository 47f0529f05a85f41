<script setup lang="ts">
// Sections D and D2: one ask after the other, near and off side by side. Level
// and answer are two taps; a light soft one is one.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import AnswerRow from '../../parts/AnswerRow.vue'
import AnswerShape from '../../parts/AnswerShape.vue'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import LevelKeys from '../../parts/LevelKeys.vue'
import StopWatch from '../../parts/StopWatch.vue'
import { sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'

const { walk, ridden = false } = defineProps<{ walk: Assessing; ridden?: boolean }>()

type Basic = Schemas['AssessBasic']
const tests = computed(() => (walk.data?.tests ?? []).filter((t) => (t.ridden ?? false) === ridden))
const asks = computed(() =>
  tests.value.flatMap((t) => t.asks.map((key, i) => ({ key, name: t.name, side: t.sides[i] ?? '', test: t }))),
)
const noted = (key: string) => walk.typed(`basics/${key}`) as Basic | undefined
const open = ref('')
const now = computed(() => asks.value.find((a) => a.key === open.value) ?? asks.value.find((a) => !noted(a.key)?.grade))

const note = (name: keyof Basic, value: unknown) => now.value && walk.mark(`basics/${now.value.key}/${name}`, value)

function level(n: number) {
  open.value = now.value?.key ?? ''
  note('level', n)
}
function steps(n: number) {
  open.value = now.value?.key ?? ''
  note('count', n)
}
function grade(answer: string) {
  note('grade', answer)
  open.value = ''
}
/** What one tap says of it: light and soft, and as long or as far as it takes. */
const asLong = computed(() => {
  if (now.value?.test.counts) return `, ${now.value.test.last} steps`
  return now.value?.test.holds ? `, ${now.value.test.last} s` : ''
})
function light() {
  if (now.value?.test.counts) note('count', now.value.test.last)
  if (now.value?.test.holds && noted(now.value.key)?.seconds === undefined) note('seconds', now.value.test.last)
  note('level', 2)
  grade('accepted')
}
</script>

<template>
  <div class="stack">
    <section v-if="now" class="now stack" :aria-label="`Now: ${now.name} ${sideWord(now.side)}`">
      <p class="which">
        {{ now.name }} <b v-if="now.side">{{ sideWord(now.side) }}</b>
      </p>
      <LevelKeys label="Level needed" :level="noted(now.key)?.level" @tap="level" />
      <ChipRow
        v-if="now.test.counts"
        label="Steps"
        :choices="
          Array.from({ length: now.test.last ?? 0 }, (_, i) => ({
            value: i + 1,
            text: i + 1 === now?.test.last ? `${i + 1} steps and more` : String(i + 1),
          }))
        "
        :chosen="[noted(now.key)?.count ?? 0]"
        @toggle="steps"
      />
      <AnswerRow label="Answer" :answers="walk.data?.words.answers ?? []" :given="noted(now.key)?.grade" @tap="grade" />
      <div class="row">
        <button type="button" class="light" @click="light">light and soft: level 2, accepted{{ asLong }}</button>
        <StopWatch
          :key="now.key"
          :label="now.test.holds ? 'Seconds it stood' : 'Seconds to answer'"
          :seconds="noted(now.key)?.seconds"
          @stop="note('seconds', $event)"
        />
        <ChipRow
          label="Promptness"
          :choices="choices(walk.data?.words.prompts ?? [])"
          :chosen="[noted(now.key)?.prompt ?? '']"
          @toggle="note('prompt', $event)"
        />
      </div>
    </section>
    <p v-else>All of them were asked. Touch one to change it.</p>
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Test</span></th>
          <th scope="col">{{ sideWord('near') }}</th>
          <th scope="col">{{ sideWord('off') }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in tests" :key="t.key">
          <th scope="row">{{ t.name }}</th>
          <td v-for="key in t.asks" :key="key" :colspan="t.asks.length === 1 ? 2 : 1">
            <button
              type="button"
              class="cell"
              :class="{ noted: noted(key) }"
              :aria-pressed="now?.key === key"
              @click="open = key"
            >
              <span class="visually-hidden">{{ key }}: {{ noted(key)?.grade }}</span>
              <template v-if="noted(key)">
                <AnswerShape v-if="noted(key)?.grade" :answer="noted(key)?.grade ?? ''" ink />
                <span
                  >{{ noted(key)?.level ?? '–'
                  }}<small v-if="noted(key)?.count !== undefined"> {{ noted(key)?.count }} steps</small
                  ><small v-if="noted(key)?.seconds !== undefined"> {{ noted(key)?.seconds }} s</small
                  ><small v-if="noted(key)?.prompt"> {{ noted(key)?.prompt }}</small></span
                >
              </template>
              <span v-else class="quiet">not looked at</span>
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.now {
  border: 2px solid var(--ink-1);
  border-radius: var(--radius);
  padding: var(--gap-3);
  background: var(--ivory-1);
}
.which {
  font: 700 var(--step-3) / 1.1 var(--font-head);
}
.which b {
  color: var(--slate);
}
.light {
  min-height: var(--control);
  border: 2px solid var(--pasture);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font-weight: 600;
  cursor: pointer;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
}
td,
th {
  border-top: var(--line);
  padding: var(--gap-1);
}
.cell {
  width: 100%;
  min-height: 40px;
  display: flex;
  align-items: center;
  gap: var(--gap-2);
  border: 1px dashed var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  cursor: pointer;
  text-align: left;
}
.cell small {
  margin-left: var(--gap-2);
}
.cell.noted {
  border: 1px solid var(--ink-1);
}
.cell[aria-pressed='true'] {
  border: 2px solid var(--ink-1);
  background: var(--ivory-2);
}
</style>
