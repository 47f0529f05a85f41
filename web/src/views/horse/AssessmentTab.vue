<script setup lang="ts">
// The short assessment: the owner's story, the body, the problem itself once.
// Beside it what the rules make of it, while one types.
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, told, type Schemas } from '../../api/client'
import { useLoad, useSend } from '../../api/use'
import { differences } from '../../parts/differences'
import PageState from '../../parts/PageState.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { shortDate } from '../../words'
import AssessmentResult from './AssessmentResult.vue'
import BaselineFields from './BaselineFields.vue'
import BodyFields from './BodyFields.vue'
import EventFields from './EventFields.vue'
import { useHorseFile } from './file'
import StoryFields from './StoryFields.vue'

type Doc = Schemas['AssessAssessment']

const { file, reload } = useHorseFile()
const caseId = file.value?.case.id ?? ''

const doc = shallowRef<Doc>({ story: {}, baseline: {} })
const kept = shallowRef<{ id: string; on: string; version: number }>()
const result = shallowRef<Schemas['Result']>()
const changed = ref(false)
const saved = ref(false)

const { data, trouble, load } = useLoad(async () => {
  const walk = await told(api.GET('/api/cases/{id}/assessment', { params: { path: { id: caseId } } }))
  const newest = walk.newest
  if (newest) {
    doc.value = newest.doc
    result.value = newest.result
    kept.value = { id: newest.id ?? '', on: newest.on, version: newest.version }
  }
  return walk
})

const saving = useSend()
const judging = useSend()
const wrong = (field: string) => (saving.trouble.value ?? judging.trouble.value)?.fields[`doc.${field}`]

const judge = useDebounceFn(async () => {
  const body = { doc: doc.value }
  const now = await judging.send(() => told(api.POST('/api/cases/{id}/judge', { params: { path: { id: caseId } }, body })))
  if (now) result.value = now
}, 400)

function change(part: Partial<Doc>) {
  doc.value = { ...doc.value, ...part }
  changed.value = true
  saved.value = false
}
watch(doc, () => changed.value && void judge())

async function save(anew = false) {
  const now = await saving.send(() =>
    kept.value && !anew
      ? told(
          api.PUT('/api/assessments/{id}', {
            params: { path: { id: kept.value.id } },
            body: { doc: doc.value, version: kept.value.version },
          }),
        )
      : told(api.POST('/api/cases/{id}/assessments', { params: { path: { id: caseId } }, body: { doc: doc.value } })),
  )
  if (!now) return
  kept.value = { id: now.id ?? '', on: now.on, version: now.version }
  result.value = now.result
  changed.value = false
  saved.value = true
  await reload()
}

const theirs = computed(() => saving.trouble.value?.current as Schemas['Assessment'] | undefined)
const differing = computed(() => (theirs.value ? differences(doc.value, theirs.value.doc) : []))

async function mine() {
  if (theirs.value && kept.value) kept.value = { ...kept.value, version: theirs.value.version }
  await save()
}

function take() {
  const t = theirs.value
  if (!t || !kept.value) return
  doc.value = t.doc
  kept.value = { ...kept.value, version: t.version }
  saving.trouble.value = undefined
  changed.value = false
  void reload()
}
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
    <div v-if="data" class="columns">
      <form class="stack" novalidate @submit.prevent="save()">
        <p v-if="kept" class="quiet">
          Assessed on {{ shortDate(kept.on) }}.
          <template v-if="data.older.length">Before that on {{ data.older.map(shortDate).join(', ') }}.</template>
        </p>
        <p v-else>
          Not assessed yet. Hear the owner, look at the body, ask the problem once, low. Leave out what you did not look at.
        </p>
        <StoryFields :story="doc.story" :wrong="(f) => wrong(`story.${f}`)" @change="change({ story: $event })" />
        <EventFields :events="doc.events ?? []" :wrong="wrong" @change="change({ events: $event })" />
        <BodyFields
          :body="doc.body ?? []"
          :items="data.body_items"
          :states="data.body_states"
          @change="change({ body: $event })"
        />
        <BaselineFields
          :baseline="doc.baseline"
          :steps="data.steps"
          :wrong="(f) => wrong(`baseline.${f}`)"
          @change="change({ baseline: $event })"
        />
        <StaleNote v-if="theirs" :differences="differing" @mine="mine" @theirs="take" />
        <WrongNote v-else :trouble="saving.trouble.value" />
        <div class="row save">
          <ElButton type="primary" native-type="submit" :loading="saving.sending.value">
            {{ kept ? 'Save the assessment' : 'Keep the assessment' }}
          </ElButton>
          <ElButton v-if="kept" :disabled="saving.sending.value" @click="save(true)">Keep it as a new one, of today</ElButton>
          <p v-if="saved" role="status">Saved. <RouterLink :to="`/horses/${file?.id}/plan`">On to the plan</RouterLink></p>
          <p v-else-if="changed" class="quiet">Not saved yet.</p>
        </div>
      </form>
      <AssessmentResult :result="result" :saved="!changed && !!kept" />
    </div>
  </PageState>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: var(--gap-3);
  align-items: start;
}
.save {
  position: sticky;
  bottom: 0;
  background: var(--ivory-1);
  padding: var(--gap-2) 0;
  border-top: var(--line);
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .save {
    position: static;
  }
}
</style>
