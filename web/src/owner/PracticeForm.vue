<script setup lang="ts">
// Practice at home, written down in a few taps with gloves on. Usual minutes are
// filled in, answers never are.
import { computed, ref } from 'vue'
import { localDate, longDate } from '../dates'
import ChoiceRow from './ChoiceRow.vue'
import type { HorsePage, Log, Pages } from './client'
import FaceHead from './FaceHead.vue'
import { blank } from './kept'

const { page, choices, trainer, step, right, away } = defineProps<{
  page: HorsePage
  choices: Pages['choices']
  trainer: string
  step?: string
  /** An earlier one that is put right. */
  right?: Log
  away: boolean
}>()
const emit = defineEmits<{ keep: [log: Log]; leave: [] }>()

const steps = computed(() => page.card?.steps ?? [])
const at = ref(right?.step ?? step ?? steps.value.at(-1)?.step ?? '')
const usual = choices.minutes[Math.floor(choices.minutes.length / 2)] ?? choices.minutes[0]
const minutes = ref<number | undefined>(right?.minutes ?? usual)
const first = ref(right?.answers?.[0])
const second = ref(right?.answers?.[1])
const arousal = ref(right?.arousal ?? undefined)
const lightest = ref(right?.lightest || undefined)
const firmest = ref(right?.firmest || undefined)
const ended = ref(right?.ended || undefined)
const note = ref(right?.note ?? '')
const adding = ref(note.value !== '')
const wrong = ref('')

const stops = computed(() => choices.faces.find((f) => f.arousal === arousal.value)?.stops)
const worst = computed(() => choices.faces.find((f) => f.stops)?.word ?? '')
const today = localDate(Date.now())

function log(done: boolean): Log {
  const l = blank(at.value, minutes.value ?? 0, new Date(), right)
  l.note = note.value.trim()
  if (!done) return { ...l, done, minutes: 0 }
  return {
    ...l,
    answers: [first.value, first.value && second.value].filter((a) => a !== undefined && a !== ''),
    arousal: arousal.value ?? null,
    lightest: lightest.value ?? '',
    firmest: firmest.value ?? '',
    ended: ended.value ?? '',
  }
}

function keep() {
  wrong.value = arousal.value === undefined ? 'Say how it was, mostly: one of the five heads.' : ''
  if (!wrong.value) emit('keep', log(true))
}
</script>

<template>
  <form @submit.prevent="keep">
    <header>
      <div>
        <h1>{{ page.name }}</h1>
        <p>{{ longDate(today) }}</p>
      </div>
      <button type="button" @click="emit('keep', log(false))">not done today</button>
    </header>
    <label v-if="steps.length > 1" class="steps">
      What
      <select v-model="at">
        <option v-for="s in steps" :key="s.step" :value="s.step">{{ s.plain }}</option>
      </select>
    </label>
    <p v-else class="what">{{ steps[0]?.plain }}</p>
    <ChoiceRow v-model="minutes" name="Minutes" :of="choices.minutes" />
    <ChoiceRow v-model="first" name="First ask" :of="choices.answers" />
    <ChoiceRow v-model="second" name="Second ask" :of="choices.answers" />
    <fieldset>
      <legend>How was {{ page.she }}, mostly?</legend>
      <div class="faces">
        <button
          v-for="f in choices.faces"
          :key="f.arousal"
          type="button"
          :aria-pressed="arousal === f.arousal"
          @click="arousal = f.arousal"
        >
          <FaceHead :arousal="f.arousal" />{{ f.word }}
        </button>
      </div>
    </fieldset>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <ChoiceRow v-model="lightest" name="Lightest feel" :of="choices.feels" />
    <ChoiceRow v-model="firmest" name="Firmest feel" :of="choices.feels" />
    <ChoiceRow v-model="ended" name="You ended" :of="choices.ends" />
    <label v-if="adding">
      Anything else
      <textarea v-model="note" rows="3" maxlength="500"></textarea>
    </label>
    <p class="then">
      <b v-if="stops">Stop here for today. Practice of this waits until {{ trainer }} has rung you.</b>
      <template v-else>From {{ worst }} on: stop, and {{ trainer }} is told.</template>
    </p>
    <div class="bar">
      <button v-if="adding" type="button" @click="emit('leave')">Leave it</button>
      <button v-else type="button" @click="adding = true">Add a line</button>
      <button class="main" type="submit">
        {{ stops ? 'Keep it, and tell' : 'Keep it' }}<small v-if="away">no signal: sent later</small>
      </button>
    </div>
  </form>
</template>

<style scoped>
form {
  padding: 0 var(--gap-3) 96px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: stretch;
  border-bottom: 2px solid;
  margin: 0 calc(-1 * var(--gap-3));
  padding-left: var(--gap-3);
}
header div {
  padding: var(--gap-2) 0;
}
header h1 {
  font-size: 1.3rem;
}
header button {
  border: 0;
  border-left: 2px solid;
  width: 100px;
  min-height: var(--touch);
  line-height: 1.15;
}
.what {
  font-size: 1.2rem;
  font-weight: 700;
  margin-top: var(--gap-2);
}
.what::first-letter {
  text-transform: uppercase;
}
.steps {
  display: flex;
  align-items: center;
  gap: var(--gap-2);
}
select {
  flex: 1;
  min-width: 0;
  min-height: 52px;
  font: inherit;
  font-weight: 700;
  color: inherit;
  background: var(--ivory-0);
  border: 2px solid var(--arena-ink);
  border-radius: 0;
}
fieldset {
  border: 0;
  padding: 0;
  margin: var(--gap-3) 0 0;
}
legend {
  font-weight: 600;
}
.faces {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 4px;
  margin: 0 calc(-1 * var(--gap-2));
}
.faces button {
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-start;
  border: 0;
  border-bottom: var(--stroke);
  padding: 3px 0 6px;
  font-size: 0.8125rem;
  line-height: 1;
  overflow-wrap: normal;
}
label {
  display: block;
  margin-top: var(--gap-3);
  font-weight: 600;
}
textarea {
  display: block;
  width: 100%;
  font: inherit;
  padding: var(--gap-2);
  border: 2px solid var(--arena-ink);
  border-radius: 0;
}
.then {
  margin-top: var(--gap-3);
}
</style>
