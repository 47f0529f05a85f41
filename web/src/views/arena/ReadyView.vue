<script setup lang="ts">
// At the gate: readiness in under a minute, with the precautions of the grade.
import { useDebounceFn } from '@vueuse/core'
import { v7 } from 'uuid'
import { computed, reactive, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, told, type Schemas } from '../../api/client'
import { useLoad, useSend } from '../../api/use'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { daysAgo } from '../../words'

type Readiness = Schemas['ArenaReadiness']

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const params = { path: { id } }
const { data, trouble, load } = useLoad(() => told(api.GET('/api/cases/{id}/readying', { params })))

const ready = reactive({
  arousal: undefined as number | undefined,
  handler: '' as Readiness['handler'],
  tack: false,
  body: undefined as boolean | undefined,
  alone: false,
  weather: '',
  stop: '' as Readiness['stop'],
  holder: '',
  step: '',
})
const sessionId = v7()
const verdict = shallowRef<Schemas['Verdict']>()
const gate = useSend()
const starting = useSend()
const picking = ref(false)

const minds = choices(['calm', 'tight', 'scared', 'angry'] as const)
const stops = choices(['heat', 'ice', 'storm', 'lameness', 'wound', 'pain'] as const)
const yesNo = [
  { value: 'yes', text: 'yes' },
  { value: 'no', text: 'no' },
]

const missing = computed(() =>
  [
    ready.arousal === undefined && 'how the horse is',
    !ready.handler && 'how the handler is',
    ready.body === undefined && 'the body',
  ].filter(Boolean),
)
const holder = computed(() => ready.holder || (data.value?.handlers[0]?.id ?? ''))

const body = (): Readiness => ({
  arousal: ready.arousal ?? null,
  handler: ready.handler,
  tack: ready.tack,
  body: ready.body ?? false,
  alone: ready.alone,
  weather: ready.weather || undefined,
  stop: ready.stop || undefined,
  ask: ready.step ? (data.value?.asks.find((a) => a.ask.step === ready.step)?.ask ?? undefined) : undefined,
})

const ask = useDebounceFn(async () => {
  if (missing.value.length) return
  const now = await gate.send(() =>
    told(api.POST('/api/cases/{id}/gate', { params, body: { readiness: body(), handler: holder.value } })),
  )
  if (now) verdict.value = now
}, 150)
watch(ready, () => void ask())

async function begin() {
  const session = await starting.send(() =>
    told(
      api.POST('/api/cases/{id}/sessions', {
        params,
        body: {
          id: sessionId,
          started_at: Date.now(),
          zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
          handler: holder.value,
          readiness: body(),
        },
      }),
    ),
  )
  if (session) await router.replace(`/arena/${session.id}`)
}

const may = computed(() => verdict.value?.may === true && !!verdict.value.ask && missing.value.length === 0)
</script>

<template>
  <div class="page gate">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <header class="page-head row between">
          <div>
            <h1>Ready? {{ data.horse.name }}</h1>
            <p>{{ [data.yard, daysAgo(data.days_off), data.case.goal].filter(Boolean).join(' · ') }}</p>
          </div>
          <RouterLink :to="`/horses/${data.horse.id}`" class="button plain">Back to the horse</RouterLink>
        </header>
        <p v-if="data.open_session" class="sheet strong">
          A session of this horse is still open. <RouterLink :to="`/arena/${data.open_session}`">Go on with it</RouterLink> or end
          it there first.
        </p>
        <div class="columns">
          <form class="stack" @submit.prevent="begin">
            <FieldRow label="How is the horse at the gate?">
              <ChipRow
                big
                label="Arousal"
                :choices="data.arousals.map((a, i) => ({ value: i, text: a.text }))"
                :chosen="ready.arousal === undefined ? [] : [ready.arousal]"
                @toggle="ready.arousal = Number($event)"
              />
            </FieldRow>
            <FieldRow v-if="data.handlers.length > 1" label="Who holds the rope?">
              <ChipRow
                big
                label="Handler"
                :choices="data.handlers.map((h) => ({ value: h.id, text: h.owner ? `${h.name}, owner` : h.name }))"
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
            <FieldRow label="Is the body as last time? Look it over: legs, back, mouth, girth.">
              <ChipRow
                big
                label="Body as last time"
                :choices="yesNo"
                :chosen="ready.body === undefined ? [] : [ready.body ? 'yes' : 'no']"
                @toggle="ready.body = $event === 'yes'"
              />
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
          <aside class="stack">
            <section class="sheet stack verdict" aria-live="polite">
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
                <select v-if="picking" v-model="ready.step" class="pick" aria-label="Begin with">
                  <option value="">as proposed</option>
                  <option v-for="a in data.asks.filter((x) => x.open)" :key="a.ask.step" :value="a.ask.step">
                    {{ a.name }} ({{ a.ladder }}, {{ a.state }})
                  </option>
                </select>
              </template>
              <WrongNote :trouble="starting.trouble.value ?? gate.trouble.value" />
              <button
                type="button"
                class="button begin"
                :disabled="!may || starting.sending.value || !!data.open_session"
                @click="begin"
              >
                Into the arena
              </button>
            </section>
            <section class="sheet stack">
              <h2>{{ data.care }}</h2>
              <ul class="dots">
                <li v-for="p in data.precautions" :key="p.key">{{ p.text }}</li>
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
  background: var(--ivory-0);
  min-height: 100vh;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  gap: var(--gap-4);
  align-items: start;
}
.verdict {
  border: var(--rule);
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
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
