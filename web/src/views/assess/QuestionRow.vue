<script setup lang="ts">
// One question of the walk, answered by taps where it can be.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import StopWatch from '../../parts/StopWatch.vue'
import TypedAnswer from '../../parts/TypedAnswer.vue'
import type { Assessing } from '../../cases/useAssessment'

const { question, walk, source } = defineProps<{
  question: Schemas['AssessQuestion']
  walk: Assessing
  source: string
}>()

const value = computed(() => walk.typed(question.path))
const choices = computed(() => (question.choices ?? []).map((c) => ({ value: c.value, text: c.says })))
const arousals = computed(() => (walk.data?.arousals ?? []).map((a, i) => ({ value: String(i), text: a.text })))
const number = computed(() => value.value as number | undefined)
const kind = computed(() => question.kind as 'text' | 'number' | 'date')
const many = computed(() => (value.value ?? []) as string[])
const nothing = computed(() => `${question.path}looked/${question.look ?? ''}`)
const ticked = computed(() => choices.value.map((c) => c.value).filter((key) => walk.typed(`${question.path}findings/${key}`)))

function one(word: string) {
  walk.mark(question.path, value.value === word ? null : word)
}
function toggle(word: string) {
  const now = many.value.includes(word) ? many.value.filter((w) => w !== word) : [...many.value, word]
  walk.mark(question.path, now.length > 0 ? now : null)
}
function tick(key: string) {
  const path = `${question.path}findings/${key}`
  walk.mark(path, walk.typed(path) ? null : source)
  if (walk.typed(nothing.value)) walk.mark(nothing.value, null)
}
function none() {
  if (walk.typed(nothing.value)) return walk.mark(nothing.value, null)
  for (const key of ticked.value) walk.mark(`${question.path}findings/${key}`, null)
  walk.mark(nothing.value, source)
}
function arousal(level: number) {
  walk.mark(question.path, value.value === level ? null : level)
}
</script>

<template>
  <FieldRow v-slot="f" :label="question.label.text" :wrong="walk.wrong(question.path)" class="question">
    <ChipRow
      v-if="question.kind === 'one' || question.kind === 'step'"
      :label="question.label.text"
      :choices="choices"
      :chosen="[String(value ?? '')]"
      @toggle="one"
    />
    <ChipRow
      v-else-if="question.kind === 'many'"
      :label="question.label.text"
      :choices="choices"
      :chosen="many"
      @toggle="toggle"
    />
    <ChipRow
      v-else-if="question.kind === 'findings'"
      :label="question.label.text"
      :choices="choices"
      :chosen="ticked"
      @toggle="tick"
    >
      <button type="button" class="none" :aria-pressed="!!walk.typed(nothing)" @click="none">none of these</button>
    </ChipRow>
    <ChipRow
      v-else-if="question.kind === 'yes'"
      :label="question.label.text"
      :choices="[{ value: 'yes', text: 'yes' }]"
      :chosen="value ? ['yes'] : []"
      @toggle="walk.mark(question.path, value ? null : true)"
    />
    <ChipRow
      v-else-if="question.kind === 'arousal'"
      :label="question.label.text"
      :choices="arousals"
      :chosen="[String(value ?? '')]"
      @toggle="arousal(Number($event))"
    />
    <div v-else-if="question.kind === 'seconds'" class="row">
      <StopWatch :label="question.label.text" :seconds="number" @stop="walk.mark(question.path, Math.round($event))" />
      <TypedAnswer :id="f.id" kind="number" class="short" :value="value" @put="walk.mark(question.path, $event)" />
    </div>
    <TypedAnswer
      v-else
      :id="f.id"
      :kind="kind"
      :long="question.long"
      :class="{ short: question.kind !== 'text' }"
      :value="value"
      @put="walk.mark(question.path, $event)"
    />
  </FieldRow>
</template>

<style scoped>
@media (min-width: 1100px) {
  .question {
    grid-template-columns: 160px minmax(0, 1fr);
    gap: var(--gap-1) var(--gap-3);
    align-items: center;
  }
  .question > :deep(p) {
    grid-column: 2;
  }
}
.short {
  max-width: 11em;
}
.none {
  min-height: var(--control);
  padding: 0 var(--gap-3);
  border: 2px dashed var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  cursor: pointer;
}
.none[aria-pressed='true'] {
  border-style: solid;
  background: var(--ink-1);
  color: var(--ivory-0);
  font-weight: 600;
}
</style>
