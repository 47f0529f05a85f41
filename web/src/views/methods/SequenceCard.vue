<script setup lang="ts">
// A sequence that is ticked in its order. The rules refuse a wrong one and say
// why; what is ticked stays on this device until the run is begun anew.
import { useLocalStorage } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import { me } from '../../api/me'
import { theRules } from '../../rules/rules'
import ChipRow from '../../parts/ChipRow.vue'
import PageState from '../../parts/PageState.vue'
import { count } from '../../words'
import { useHandbook } from './handbook'

const { card } = defineProps<{ card: string }>()
const { data, trouble, load } = useHandbook()
/** The trailer at work: chosen at the gate, or here. */
const { data: trailers } = useLoad(() => told(api.GET('/api/trailers')))
const route = useRoute()
const at = useLocalStorage('trailer-at', '')
watch(
  () => route.query.at,
  (chosen) => (at.value = typeof chosen === 'string' ? chosen : at.value),
  { immediate: true },
)
const trailer = computed(() => trailers.value?.find((t) => t.id === at.value))
const shown = computed(() => data.value?.cards.find((c) => c.key === card))

interface Kept {
  run: string
  done: string[]
  seed: number
}
const draw = () => Math.floor(Math.random() * 2 ** 31)
const kept = useLocalStorage<Kept>(`sequence-${card}`, { run: '', done: [], seed: draw() })
const now = ref<Schemas['CatalogNow']>()
const sending = useSend()
const run = computed(() => shown.value?.runs.find((r) => r.key === kept.value.run) ?? shown.value?.runs[0])
const next = computed(() => run.value?.lines.find((l) => l.key === now.value?.next))

/** The rules on this device say whether the order is right: the trailer stands
 * where there is no signal. */
async function ticked(body: Schemas['CatalogTick']) {
  const { version, catalog } = await told(api.GET('/api/catalog'))
  const rules = theRules()
  await rules.read(version, () => Promise.resolve(catalog))
  return rules.ask('card', { key: card, words: me.value?.words ?? shippedWords, ...body })
}
const shippedWords: Schemas['PhraseWords'] = { vehicle: 'trailer', sides: 'near and off', units: 'metres' }

let turn: Promise<unknown> = Promise.resolve()

/** Ticks follow one another: one that is tapped while the rules still load waits. */
function send(tick: string, undo = false) {
  turn = turn.then(() => sendNow(tick, undo))
}

async function sendNow(tick: string, undo: boolean) {
  if (!run.value) return
  const body = { run: run.value.key, done: kept.value.done, tick, undo, seed: kept.value.seed }
  const answer = await sending.send(() => ticked(body))
  if (!answer) return
  now.value = answer
  kept.value = { ...kept.value, run: run.value.key, done: answer.done }
}

function begin(key: string) {
  kept.value = { run: key, done: [], seed: draw() }
  send('')
}
watch(run, (r, old) => {
  if (r && !old) send('')
})
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <section v-if="!shown || !run" class="sheet"><h1>There is no such card</h1></section>
      <div v-else class="stack card">
        <h1>{{ shown.name }}</h1>
        <ChipRow
          class="no-print"
          big
          label="Which way"
          :choices="shown.runs.map((r) => ({ value: r.key, text: r.name }))"
          :chosen="[run.key]"
          @toggle="begin"
        />
        <ElSelect
          v-if="trailers?.length"
          v-model="at"
          clearable
          placeholder="Which trailer?"
          aria-label="Which trailer"
          class="no-print"
        >
          <ElOption v-for="t in trailers" :key="t.id" :value="t.id" :label="t.name" />
        </ElSelect>
        <section v-if="trailer" class="at">
          <h2>{{ trailer.name }}</h2>
          <p>{{ trailer.like.text }}</p>
          <p v-for="m in trailer.mind" :key="m.key" class="strong">{{ m.text }}</p>
        </section>
        <p v-if="now?.refused" class="refused" role="alert">{{ now.refused.text }}</p>
        <p v-if="sending.trouble.value" class="refused" role="alert">{{ sending.trouble.value.message }}</p>
        <p class="visually-hidden" role="status">{{ next ? `Now: ${next.do}` : 'All done' }}</p>
        <ol class="lines">
          <li v-for="(l, i) in run.lines" :key="l.key">
            <button
              type="button"
              class="line"
              :class="{ done: now?.done.includes(l.key), next: now?.next === l.key }"
              :aria-pressed="now?.done.includes(l.key) ?? false"
              @click="send(l.key)"
            >
              <svg viewBox="0 0 32 32" class="box" aria-hidden="true">
                <rect x="2" y="2" width="28" height="28" class="well" />
                <path v-if="now?.done.includes(l.key)" d="M8 17l6 7L25 8" class="tick" />
              </svg>
              <span>
                <b>{{ i + 1 }}. {{ l.do }}</b>
                <span v-if="l.stops && now?.stops.length" class="stops">
                  Stop after {{ now.stops.join(', ') }}
                  {{ now.stops.length === 1 && now.stops[0] === 1 ? 'step' : 'steps' }} back:
                  {{ count(now.stops.length, 'stop', 'stops') }}, drawn anew each time.
                </span>
                <span v-if="now?.next === l.key" class="why">{{ l.why }}.</span>
              </span>
            </button>
          </li>
        </ol>
        <p v-if="now && !now.next" class="strong">All done, in order.</p>
        <div class="row no-print">
          <button type="button" class="button plain big" :disabled="!now?.done.length" @click="send('', true)">
            Take the last back
          </button>
          <button type="button" class="button plain big" @click="begin(run.key)">Begin anew</button>
        </div>
        <ul class="dots">
          <li v-for="n in shown.notes" :key="n">{{ n }}</li>
        </ul>
        <p class="small quiet">
          This card does not replace the rules of transport and of your yard, nor somebody beside you who knows.
        </p>
      </div>
    </PageState>
  </div>
</template>

<style scoped>
.card {
  max-width: 640px;
}
.lines {
  display: grid;
  gap: var(--gap-2);
}
.line {
  width: 100%;
  min-height: var(--touch);
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  gap: var(--gap-3);
  align-items: center;
  text-align: left;
  padding: var(--gap-2) var(--gap-3);
  background: var(--ivory-0);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  cursor: pointer;
  font-size: var(--step-2);
}
.line.next {
  border: var(--stroke);
}
.line.done {
  background: var(--ivory-2);
}
.box {
  width: 36px;
}
.well {
  fill: var(--ivory-0);
  stroke: var(--arena-ink);
  stroke-width: 3;
}
.tick {
  fill: none;
  stroke: var(--arena-ink);
  stroke-width: 4;
}
.stops,
.why {
  display: block;
  font-size: var(--step-1);
}
.refused {
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: var(--gap-3);
  font-size: var(--step-2);
  font-weight: 700;
}
.big {
  min-height: var(--touch);
}
.big:disabled {
  border-style: dashed;
  cursor: default;
  color: var(--ink-2);
}
</style>
