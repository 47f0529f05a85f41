<script setup lang="ts">
// What a session came to: its story, its beads, what changed, the next visit,
// and one line of how it ended, for the owner.
import { computed, ref, shallowRef, watch } from 'vue'
import type { Schemas } from '../../api/types'
import { keptWords, outbox } from '../../offline/kept'
import BeadRope from '../../parts/BeadRope.vue'
import { byAsk } from '../../parts/beads'
import BridgeDrawing from '../../parts/BridgeDrawing.vue'
import FieldRow from '../../parts/FieldRow.vue'
import { useLeaf } from '../../parts/leaf'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import { answered, count, longDate, sideWord } from '../../words'
import ArousalBand from './ArousalBand.vue'
import ProposedVisit from '../../cases/ProposedVisit.vue'
import CorrectSheet from './CorrectSheet.vue'
import TimingTable from './TimingTable.vue'
import { useReview } from './useReview'

const { id } = defineProps<{ id: string }>()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const { open } = useLeaf()
const { data, trouble, at, load, ended, keepLine, correct, takeOut } = useReview(id, box)
const line = ref('')
const keptLine = ref(false)
const waiting = computed(() => box.state.waiting)
const whole = computed(() => data.value?.whole)
const chosen = shallowRef<Schemas['ArenaTold']>()
const otherwise = computed(() => data.value?.review.said.filter((s) => s.otherwise) ?? [])
const leaves = computed(() => [
  { key: 'reps', name: `all the reps, ${data.value?.beads.length || 'none'}` },
  ...(data.value?.review.handlers.length ? [{ key: 'timing', name: 'timing' }] : []),
  ...(otherwise.value.length ? [{ key: 'otherwise', name: 'done otherwise than said' }] : []),
])
const last = computed(() => byAsk(data.value?.beads ?? []).at(-1))
const arousals = ['settled', 'attentive', 'tense', 'over the line', 'explosive']

watch(whole, (w) => (line.value ||= w?.note ?? ''))
// What was still on its way when the page opened changes the summary.
watch(waiting, (n, before) => n === 0 && before > 0 && void load())

async function keep() {
  keptLine.value = await keepLine(line.value.trim())
}
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <header class="page-head">
          <h1>{{ data.horse.name }}</h1>
          <div class="facts">
            <p>
              {{ longDate(data.date) }}. {{ count(data.review.minutes, 'minute', 'minutes')
              }}<template v-if="whole"> with {{ whole.by }}</template
              >.
            </p>
            <p v-if="whole">{{ answered(whole.reps) }}</p>
          </div>
          <div class="acts">
            <RouterLink :to="`/horses/${data.horse.id}`" class="button plain">Back to the horse</RouterLink>
            <RouterLink v-if="whole" :to="`/reports/${id}`" class="button">The owner's report</RouterLink>
          </div>
        </header>
        <p v-if="waiting" class="strong note" role="status">{{ keptWords }}: this page follows when they have arrived.</p>
        <p v-if="!ended && !waiting" class="strong note">
          This session is still open. <RouterLink :to="`/arena/${id}`">Go on with it</RouterLink>
        </p>
        <div v-if="whole?.gate.length" class="strong note">
          Begun without a signal. Asked now, the gate says:
          <ul class="dots">
            <li v-for="g in whole.gate" :key="g.key">{{ g.text }}</li>
          </ul>
        </div>
        <p v-if="whole?.late" class="strong note">
          {{ count(whole.late, 'entry', 'entries') }} arrived from another device after this session had ended. Kept, and marked
          so.
        </p>
        <p v-if="whole?.clock_off" class="note">
          The clock of a device was wrong. Its entries stand in their order, at corrected times.
        </p>
        <div class="leafpage">
          <template v-if="!open">
            <p class="lead">{{ data.review.next.text }}</p>
            <BridgeDrawing v-if="whole" :bridge="whole.bridge" />
            <p v-else class="follows">The bridge follows when there is a signal. Nothing of the session is lost.</p>
            <div class="parts columns">
              <section aria-labelledby="happened">
                <h2 id="happened">What happened</h2>
                <p class="story">{{ data.review.story.map((m) => m.text).join(' ') || 'Nothing was logged.' }}</p>
                <ArousalBand :felt="data.review.felt" :words="arousals" />
              </section>
              <section v-if="whole" aria-labelledby="changed">
                <h2 id="changed">What changed on the bridge</h2>
                <p v-if="whole.changes.length === 0">No step changed today. That still counts.</p>
                <ul class="changes">
                  <li v-for="c in whole.changes" :key="c.name + c.variant.text">
                    <b>{{ [c.name, c.variant.text].filter(Boolean).join(', ') }}</b> {{ c.from }} → {{ c.now.text }}
                  </li>
                </ul>
                <p v-if="whole.care !== whole.care_before" class="strong">
                  The grade of care is now {{ whole.care }}; it was {{ whole.care_before }}.
                </p>
                <p v-if="whole.events.length" class="strong">
                  Dangerous: {{ whole.events.map((e) => e.kind).join(', ') }}. It is on record.
                </p>
                <div v-if="last">
                  <h3>{{ [last.name, sideWord(last.variant)].filter(Boolean).join(', ') }}</h3>
                  <BeadRope :beads="last.beads" />
                </div>
              </section>
              <section aria-labelledby="ended">
                <h2 id="ended">How it ended</h2>
                <form class="stack" @submit.prevent="keep">
                  <FieldRow v-slot="f" label="One line for the owner">
                    <ElInput :id="f.id" v-model="line" maxlength="300" placeholder="stood in the doorway and sighed" />
                  </FieldRow>
                  <div class="row">
                    <ElButton native-type="submit" :disabled="!line.trim()">Keep the line</ElButton>
                    <p v-if="keptLine" role="status">Kept. It stands in the report.</p>
                  </div>
                </form>
                <h3 class="then">Then</h3>
                <ProposedVisit v-if="whole" :horse="data.horse.id" />
                <p v-else class="follows">The next visit is proposed when there is a signal.</p>
              </section>
            </div>
          </template>
          <section v-else-if="open === 'reps'" class="stack leaf">
            <h2>All the reps</h2>
            <div v-for="a in byAsk(data.beads)" :key="a.key">
              <h3>{{ [a.name, sideWord(a.variant)].filter(Boolean).join(', ') }}</h3>
              <BeadRope :beads="a.beads" />
              <details>
                <summary>Put one right</summary>
                <ul class="row">
                  <li v-for="(b, i) in data.beads.filter((x) => a.beads.some((y) => y.id === x.id))" :key="b.id">
                    <button type="button" class="button plain" @click="chosen = b">
                      {{ i + 1 }}: {{ b.graded }}{{ b.peak == null ? '' : ` at ${b.peak}` }}
                    </button>
                  </li>
                </ul>
              </details>
            </div>
            <p v-if="data.beads.length === 0">No rep was logged.</p>
          </section>
          <section v-else-if="open === 'timing'" class="stack leaf">
            <h2>Timing</h2>
            <TimingTable :timings="data.review.handlers" :names="data.handlers" />
          </section>
          <section v-else class="stack leaf">
            <h2>Done otherwise than said</h2>
            <ul class="dots">
              <li v-for="s in otherwise" :key="s.at">{{ s.action }} (rule {{ s.rule }}) {{ s.reason }}</li>
            </ul>
          </section>
          <OneTap :leaves="leaves" front="the session" />
        </div>
      </template>
    </PageState>
    <CorrectSheet
      v-if="chosen"
      :bead="chosen"
      @correct="(to) => chosen && correct(chosen, to).then(() => (chosen = undefined))"
      @out="chosen && takeOut(chosen).then(() => (chosen = undefined))"
      @close="chosen = undefined"
    />
  </div>
</template>

<style scoped>
.columns {
  --beside: minmax(0, 1.5fr) minmax(0, 1fr) minmax(0, 1fr);
}
.columns section {
  display: grid;
  align-content: start;
  gap: var(--gap-2);
}
.changes {
  display: grid;
  gap: var(--gap-1);
}
.story {
  max-width: 62ch;
}
.note {
  padding-bottom: var(--gap-1);
}
.follows {
  padding: var(--gap-3) 0;
}
.leaf {
  padding-bottom: var(--gap-3);
}
summary {
  min-height: var(--control);
  align-content: center;
  cursor: pointer;
}
</style>
