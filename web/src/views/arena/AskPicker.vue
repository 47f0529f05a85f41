<script setup lang="ts">
// Any ask can be chosen: this horse's ladders, the foundations, then all others by
// search. What stands against one is said, and does not stop the hand.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import ArenaSheet from './ArenaSheet.vue'
import DespiteForm from './DespiteForm.vue'
import OwnAskForm, { type OwnAsk } from './OwnAskForm.vue'

type Choice = Schemas['ArenaChoice']

const { asks, lead, incident } = defineProps<{
  asks: Choice[]
  /** A lead trainer is signed in, who may answer for what a fact forbids. */
  lead: boolean
  /** A danger is not written down yet. */
  incident: boolean
}>()
const emit = defineEmits<{
  choose: [ask: Schemas['HorseAsk'], despite?: Schemas['TrackDespite']]
  own: [own: OwnAsk]
  danger: []
  close: []
}>()

const sought = ref('')
const asked = ref('')
const seeks = computed(() => sought.value.toLowerCase().split(/\s+/).filter(Boolean))
const found = computed(() =>
  asks.filter((a) =>
    seeks.value.length
      ? seeks.value.every((word) => `${a.ladder} ${a.name}`.toLowerCase().includes(word))
      : a.group !== 'all others',
  ),
)
const easy = computed(() => (seeks.value.length ? [] : asks.filter((a) => a.easy).slice(0, 3)))
const ladders = computed(() => {
  const names = [...new Set(found.value.map((a) => a.ladder))]
  return names.map((name) => ({ name, asks: found.value.filter((a) => a.ladder === name) }))
})
const forbids = (a: Choice) => a.against !== undefined && a.against.kind !== 'early'

function tap(a: Choice) {
  if (forbids(a)) asked.value = asked.value === a.ask.step ? '' : a.ask.step
  else emit('choose', a.ask)
}
</script>

<template>
  <ArenaSheet title="Ask something else" @close="emit('close')">
    <div class="asked">
      <label for="seek">Look for an ask, on any ladder</label>
      <input id="seek" v-model="sought" class="typed" type="search" autocomplete="off" />
    </div>
    <section v-if="easy.length">
      <h3>Easy, to finish on</h3>
      <ul class="asks">
        <li v-for="a in easy" :key="a.ask.step">
          <button type="button" class="ask" @click="tap(a)">
            <b>{{ a.name }}</b> <span>{{ a.ladder }}</span>
          </button>
        </li>
      </ul>
    </section>
    <section v-for="l in ladders" :key="l.name">
      <h3>{{ l.name }}</h3>
      <ul class="asks">
        <li v-for="a in l.asks" :key="a.ask.step" :class="{ whole: asked === a.ask.step }">
          <button
            type="button"
            class="ask"
            :class="{ early: a.against?.kind === 'early', barred: forbids(a) }"
            :aria-expanded="forbids(a) ? asked === a.ask.step : undefined"
            @click="tap(a)"
          >
            <b>{{ a.name }}</b>
            <span>{{ a.says.text }}</span>
            <span v-if="a.against" class="why">{{ a.against.why.text }}</span>
          </button>
          <DespiteForm
            v-if="asked === a.ask.step && a.against"
            :against="a.against"
            :lead="lead"
            :incident="incident"
            @ask="emit('choose', a.ask, $event)"
            @danger="emit('danger')"
          />
        </li>
      </ul>
    </section>
    <p v-if="found.length === 0">No ladder has that. Try another word, or write it down below.</p>
    <OwnAskForm @add="emit('own', $event)" />
  </ArenaSheet>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
.asks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(140px, 100%), 1fr));
  gap: var(--gap-2);
  align-items: start;
}
.whole {
  grid-column: 1 / -1;
}
.ask {
  width: 100%;
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  text-align: left;
  padding: var(--gap-1) var(--gap-3);
  display: grid;
  cursor: pointer;
}
.ask span {
  font-size: var(--step-1);
}
.early {
  border-style: dashed;
}
.barred {
  border-style: dotted;
}
.why {
  font-weight: 600;
}
</style>
