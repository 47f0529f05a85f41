<script setup lang="ts">
// A session that was worked without the product, written down afterwards: one
// line for each ask. It is marked so, and counts for no pass mark.
import { v7 } from 'uuid'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad } from '../../api/use'
import { outbox } from '../../offline/kept'
import AnswerRow from '../../parts/AnswerRow.vue'
import { answers } from '../../parts/answers'
import FieldRow from '../../parts/FieldRow.vue'
import NumberField from '../../parts/NumberField.vue'
import PageState from '../../parts/PageState.vue'
import { theRules } from '../../rules/rules'
import { clockTime, localDate } from '../../words'

import AskSelect from './AskSelect.vue'

type Answer = Schemas['TrackMemory']['last']

const { id } = defineProps<{ id: string }>()
const router = useRouter()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const { data, trouble, load } = useLoad(async () => {
  const view = await told(api.GET('/api/cases/{id}/session-start', { params: { path: { id } } }))
  const rules = theRules()
  await rules.read(view.stage.catalog, async () => (await told(api.GET('/api/catalog'))).catalog)
  return { ...view, asks: (await rules.ask('asks', { brief: view.stage.brief, words: view.words })).asks }
})

interface Line {
  key: string
  step: string
  tries?: number
  worst: string
  last: string
  worked: string
  minutes?: number
}
const line = (): Line => ({ key: v7(), step: '', worst: '', last: '', worked: '' })
const hourAgo = Date.now() - 3600_000
const day = ref(localDate(hourAgo))
const time = ref(clockTime(hourAgo))
const lines = ref<Line[]>([line()])
const wrong = ref<Record<string, string>>({})
const said = answers.map((a) => a.answer)

const filled = computed(() => lines.value.filter((l) => l.step || l.last || l.tries))

/** What is missing, next to its line. */
function check(): boolean {
  wrong.value = {}
  const when = new Date(`${day.value}T${time.value}`).getTime()
  if (Number.isNaN(when)) wrong.value['when'] = 'Say when it began: a day and a time.'
  else if (when > Date.now()) wrong.value['when'] = 'That is still to come. Give a time that has passed.'
  if (filled.value.length === 0) wrong.value['when'] ??= 'Write down one ask at least.'
  for (const l of filled.value) {
    const missing = [!l.step && 'what was asked', !l.tries && 'how many tries', !l.last && 'the last answer'].filter(Boolean)
    const tries = l.tries ?? 1
    if (tries < 1 || tries > 200 || !Number.isInteger(tries)) missing.push('tries as a whole number from 1 to 200')
    if (missing.length) wrong.value[l.key] = `Still missing: ${missing.join(', ')}.`
  }
  return Object.keys(wrong.value).length === 0
}

async function keep() {
  const view = data.value
  if (!box || !view || !check()) return
  const session = v7()
  const started_at = new Date(`${day.value}T${time.value}`).getTime()
  const asks = filled.value.flatMap((l) => {
    const ask = view.asks.find((a) => a.ask.step === l.step)?.ask
    return ask ? [{ l, ask }] : []
  })
  await box.begin(`start/${id}/${session}`, {
    id: session,
    started_at,
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    handler: view.handlers[0]?.id,
    readiness: { arousal: null, handler: '', tack: false, body: false, from_memory: true },
    begun: asks[0]?.ask,
  })
  let at = started_at
  const topic = `session/${session}` as const
  for (const { l, ask } of asks) {
    at += (l.minutes || 1) * 60_000
    const { tries, worked, minutes } = l
    const memory = { ...ask, tries: tries ?? 1, worst: (l.worst || undefined) as Answer, last: l.last as Answer, minutes }
    await box.add(topic, { kind: 'memory', memory: { ...memory, worked: worked || undefined } }, at)
  }
  await box.add(topic, { kind: 'end' }, at + 1)
  await router.push(`/horses/${view.stage.horse.id}`)
}
</script>

<template>
  <div class="page">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <template v-if="data">
        <header class="page-head">
          <div>
            <h1>From memory: {{ data.stage.horse.name }}</h1>
            <p>One line for each ask. It is marked as remembered: it shows what was worked, and counts for no pass mark.</p>
          </div>
          <RouterLink :to="`/arena/ready/${id}`" class="button plain">Back</RouterLink>
        </header>
        <form class="stack" @submit.prevent="keep">
          <div class="row">
            <FieldRow v-slot="f" label="Day" :wrong="wrong['when']">
              <input :id="f.id" v-model="day" type="date" class="plain-field" />
            </FieldRow>
            <FieldRow v-slot="f" label="Began at"><input :id="f.id" v-model="time" type="time" class="plain-field" /></FieldRow>
          </div>
          <fieldset v-for="(l, i) in lines" :key="l.key" class="sheet stack">
            <legend>Ask {{ i + 1 }}</legend>
            <p v-if="wrong[l.key]" class="strong" role="alert">{{ wrong[l.key] }}</p>
            <div class="row">
              <FieldRow v-slot="f" label="What was asked">
                <AskSelect :id="f.id" v-model="l.step" :asks="data.asks" none="choose" class="plain-field" />
              </FieldRow>
              <FieldRow v-slot="f" label="Tries"><NumberField :id="f.id" v-model="l.tries" :min="1" :max="200" /></FieldRow>
              <FieldRow v-slot="f" label="Minutes"><NumberField :id="f.id" v-model="l.minutes" :min="0" :max="600" /></FieldRow>
            </div>
            <FieldRow label="The worst answer"
              ><AnswerRow :answers="said" :given="l.worst" label="The worst answer" @tap="l.worst = $event"
            /></FieldRow>
            <FieldRow label="The last answer"
              ><AnswerRow :answers="said" :given="l.last" label="The last answer" @tap="l.last = $event"
            /></FieldRow>
            <FieldRow v-slot="f" label="What worked"><ElInput :id="f.id" v-model="l.worked" maxlength="300" /></FieldRow>
          </fieldset>
          <div class="row">
            <ElButton @click="lines.push(line())">One more ask</ElButton>
            <ElButton native-type="submit" type="primary">Keep it</ElButton>
          </div>
        </form>
      </template>
    </PageState>
  </div>
</template>
