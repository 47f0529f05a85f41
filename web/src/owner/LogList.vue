<script setup lang="ts">
// What was written down lately. Today's can be put right until midnight.
import { dayMonth } from '../dates'
import type { HorsePage, Log, Pages } from './client'

const { logs, choices, card, today, waiting } = defineProps<{
  logs: Log[]
  choices: Pages['choices']
  card?: HorsePage['card']
  today: string
  /** Ids of those that were not sent yet. */
  waiting: string[]
}>()
const emit = defineEmits<{ right: [log: Log] }>()

const what = (l: Log) => l.name ?? card?.steps.find((s) => s.step === l.step)?.plain
const says = (l: Log) =>
  l.done
    ? [
        `${l.minutes ?? 0} minutes`,
        choices.faces.find((f) => f.arousal === l.arousal)?.word,
        l.answers?.join(', then '),
        l.ended && `ended ${l.ended}`,
      ]
        .filter(Boolean)
        .join(', ')
    : 'not done'
</script>

<template>
  <template v-if="logs.length">
    <h3>Written down</h3>
    <ul>
      <li v-for="l in logs" :key="l.id">
        <p>
          <b>{{ l.on === today ? 'Today' : dayMonth(l.on) }}</b><template v-if="what(l)"> · {{ what(l) }}</template
          >: {{ says(l) }}<template v-if="waiting.includes(l.id)"> · <i>not sent yet</i></template>
        </p>
        <p v-if="l.note">{{ l.note }}</p>
        <button v-if="l.on === today && !waiting.includes(l.id) && card" type="button" @click="emit('right', l)">
          Put it right
        </button>
      </li>
    </ul>
  </template>
</template>

<style scoped>
h3 {
  margin-top: var(--gap-3);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: var(--gap-2) 0;
  border-top: var(--line);
}
</style>
