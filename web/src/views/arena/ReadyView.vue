<script setup lang="ts">
// At the gate: readiness in under a minute, with the precautions of the grade.
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../../api/types'
import { keptWords, outbox } from '../../offline/kept'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { daysAgo } from '../../words'
import AskSelect from './AskSelect.vue'
import TrailerChoice from './TrailerChoice.vue'
import { useSessionStart } from './useSessionStart'

type Readiness = Schemas['ArenaReadiness']

const { id } = defineProps<{ id: string }>()
const route = useRoute()
const router = useRouter()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const { data, trouble, load, asks, ready, missing, holder, asksSettling, verdict, may, starting, openHere, begin } =
  useSessionStart(id, box)
const picking = ref(false)

const minds = choices(['calm', 'tight', 'scared', 'angry'] as const)
const stops = computed(() => choices(data.value?.stage.not_begun ?? []))
const settles = choices(['within a minute', 'within five minutes', 'not in five minutes'] as const)
const yesNo = choices(['yes', 'no'] as const)

async function enter() {
  const session = await begin()
  if (session) await router.replace(route.query.walk === undefined ? `/arena/${session}` : `/arena/${session}/walk`)
}
</script>

<template>
  <div class="page gate">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <header class="page-head">
          <h1>Ready? {{ data.stage.horse.name }}</h1>
          <div class="facts">
            <p>{{ [data.stage.yard, daysAgo(data.days_off)].filter(Boolean).join(' · ') }}</p>
            <p>{{ data.case.goal }}</p>
          </div>
          <div class="acts">
            <RouterLink :to="`/arena/memory/${id}`" class="button plain">It was worked already: from memory</RouterLink>
            <RouterLink :to="`/horses/${data.stage.horse.id}`" class="button plain">Back to the horse</RouterLink>
          </div>
        </header>
        <p v-if="openHere" class="sheet strong">
          A session of this horse is still open. <RouterLink :to="`/arena/${openHere}`">Go on with it</RouterLink> or end it there
          first.
        </p>
        <div class="columns">
          <form class="stack" @submit.prevent="enter">
            <FieldRow label="How is the horse at the gate?">
              <ChipRow
                big
                label="Arousal"
                :choices="data.stage.arousals.map((a, i) => ({ value: i, text: a.text }))"
                :chosen="ready.arousal === undefined ? [] : [ready.arousal]"
                @toggle="ready.arousal = Number($event)"
              />
            </FieldRow>
            <FieldRow v-if="data.handlers.length > 1" label="Who holds the rope?">
              <ChipRow
                big
                label="Handler"
                :choices="data.handlers.map((h) => ({ value: h.id, text: h.is ? `${h.name}, ${h.is}` : h.name }))"
                :chosen="[holder]"
                @toggle="ready.holder = String($event)"
              />
            </FieldRow>
            <FieldRow label="And this person?">
              <ChipRow
                big
                label="Handler's mind"
                :choices="minds"
                :chosen="[ready.handler]"
                @toggle="ready.handler = $event as Readiness['handler']"
              />
            </FieldRow>
            <TrailerChoice v-if="data.trailer" v-model="ready.trailer" :trailers="data.trailers" />
            <FieldRow label="Is the body as last time?">
              <ul v-if="data.body.length" class="dots open">
                <li v-for="b in data.body" :key="b.text">{{ b.text }}</li>
              </ul>
              <ChipRow
                big
                label="Body as last time"
                :choices="yesNo"
                :chosen="ready.body === undefined ? [] : [ready.body ? 'yes' : 'no']"
                @toggle="ready.body = $event === 'yes'"
              />
            </FieldRow>
            <FieldRow v-if="asksSettling" label="In hand first: how soon does it settle after the days off?">
              <ChipRow
                big
                label="How soon it settles"
                :choices="settles"
                :chosen="[ready.settled ?? '']"
                @toggle="ready.settled = $event as Readiness['settled']"
              />
              <ElCheckbox v-model="ready.noPen">There is no safe pen here</ElCheckbox>
            </FieldRow>
            <FieldRow label="A reason not to begin?">
              <ChipRow
                big
                label="Reason not to begin"
                :choices="stops"
                :chosen="[ready.stop ?? '']"
                @toggle="ready.stop = ready.stop === $event ? '' : ($event as Readiness['stop'])"
              />
            </FieldRow>
            <div>
              <ElCheckbox v-model="ready.tack"
                >Tack and kit looked over: {{ data.kit.join(', ') || 'halter, rope, gloves' }}</ElCheckbox
              >
              <ElCheckbox v-model="ready.alone">Nobody else is at the yard</ElCheckbox>
            </div>
            <FieldRow v-slot="f" label="Weather, ground, who is there" hint="A word or two, if it matters">
              <ElInput :id="f.id" v-model="ready.weather" maxlength="200" />
            </FieldRow>
          </form>
          <aside class="beside">
            <section class="stack verdict" aria-live="polite">
              <template v-if="missing.length">
                <h2>Say first</h2>
                <p>{{ missing.join(', ') }}.</p>
              </template>
              <template v-else-if="verdict">
                <h2>
                  {{ verdict.may ? (verdict.ask ? `Begin with ${verdict.name}` : 'Nothing is open to begin with') : 'Not now' }}
                </h2>
                <p v-if="verdict.may">{{ verdict.says }}</p>
                <ul class="dots">
                  <li v-for="r in verdict.reasons" :key="r.key" class="strong">{{ r.text }}</li>
                </ul>
                <button v-if="verdict.may" type="button" class="link" :aria-expanded="picking" @click="picking = !picking">
                  begin with something else
                </button>
                <AskSelect v-if="picking" v-model="ready.step" :asks="asks" none="as proposed" label="Begin with" class="pick" />
              </template>
              <WrongNote :trouble="starting.trouble.value" />
              <p v-if="data.trailer">
                At the trailer:
                <RouterLink :to="`/cards/trailer${ready.trailer ? `?at=${ready.trailer}` : ''}`">the sequence card</RouterLink>.
              </p>
              <p class="small" role="status">{{ keptWords }}</p>
              <button type="button" class="button begin" :disabled="!may || starting.sending.value || !!openHere" @click="enter">
                Into the arena
              </button>
            </section>
            <section class="sheet stack care">
              <h2>{{ data.stage.care }}</h2>
              <ul class="dots">
                <li v-for="p in data.stage.precautions" :key="p.key">{{ p.text }}</li>
              </ul>
              <p v-if="data.cycle">{{ data.cycle.text }}</p>
              <p class="quiet small">{{ data.safety.text }}</p>
            </section>
          </aside>
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.gate {
  margin: 0 auto;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: var(--gap-4);
  align-items: start;
}
.verdict {
  position: sticky;
  top: 0;
  z-index: 1;
  padding: var(--gap-2) var(--gap-3) var(--gap-3);
  background: var(--ivory-0);
  border: 2px solid var(--ink-1);
  border-radius: var(--radius);
}

.begin {
  min-height: var(--touch);
  font-size: var(--step-2);
}
.begin:disabled {
  background: var(--ivory-2);
  border-color: var(--ink-2);
  color: var(--ink-2);
  cursor: default;
}
.link {
  border: 0;
  background: none;
  padding: 0;
  min-height: 28px;
  text-decoration: underline;
  color: var(--slate);
  text-align: left;
  cursor: pointer;
}
.pick {
  font: inherit;
  min-height: var(--control);
  width: 100%;
}
.beside {
  display: grid;
  gap: var(--gap-3);
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .beside {
    display: contents;
  }
  .care {
    order: 1;
  }
  /* In the hand the verdict and the way in stay in reach under the questions. */
  .verdict {
    order: 2;
    top: auto;
    bottom: 0;
    gap: var(--gap-1);
    margin: 0 calc(-1 * var(--side));
    padding: var(--gap-2) var(--side);
    max-height: 60vh;
    overflow-y: auto;
    border-width: 2px 0 0;
    border-radius: 0;
  }
}
</style>
