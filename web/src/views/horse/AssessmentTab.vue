<script setup lang="ts">
// What the newest assessment comes to, or an older one as it was judged on its
// day; and the way into the walk.
import { computed, onUnmounted, shallowRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { outbox } from '../../offline/kept'
import PageState from '../../parts/PageState.vue'
import { shortDate } from '../../words'
import { useAssessment } from '../../cases/useAssessment'
import AssessmentResult from './AssessmentResult.vue'
import { useHorseFile } from '../../cases/file'

const { file, reload } = useHorseFile()
const route = useRoute()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const caseId = file.value?.case.id ?? ''
const horseId = file.value?.id ?? ''
const walk = useAssessment(caseId, horseId, box)
onUnmounted(() => walk.stop())

const older = shallowRef<Schemas['Assessment']>()
const of = computed(() => String(route.query.of ?? ''))
watch(
  of,
  async (id) => {
    older.value = id ? await told(api.GET('/api/assessments/{id}', { params: { path: { id } } })) : undefined
  },
  { immediate: true },
)
const shown = computed(() => (of.value ? older.value : walk.view))
const into = computed(() => `/horses/${horseId}/assess/${caseId}`)

// The header of the file follows what is marked here.
watch(
  () => walk.view?.version,
  (now, before) => before !== undefined && now !== before && void reload(),
)
</script>

<template>
  <PageState :trouble="walk.trouble" :ready="walk.data !== undefined" @again="walk.load">
    <div v-if="walk.data" class="stack">
      <div class="row between no-print">
        <p v-if="!walk.view">
          Not assessed yet. Hear the owner, look on, then take it in hand; leave out what you did not look at.
        </p>
        <p v-else-if="of">
          As it was judged on {{ shown ? shortDate(shown.on) : '' }}.
          <RouterLink :to="{ query: {} }">Back to the newest</RouterLink>
        </p>
        <p v-else>
          Assessed on {{ shortDate(walk.view.on) }}.
          <template v-if="walk.data.all.length > 1">
            Before:
            <template v-for="a in walk.data.all.slice(1)" :key="a.id">
              <RouterLink :to="{ query: { of: a.id } }">{{ shortDate(a.on) }}</RouterLink>{{ ' ' }}
            </template>
          </template>
        </p>
        <div class="row">
          <template v-if="!walk.view">
            <RouterLink :to="into" class="button">Begin the assessment</RouterLink>
            <RouterLink :to="`${into}?short`" class="button plain">Quick look</RouterLink>
          </template>
          <template v-else-if="!of">
            <RouterLink :to="into" class="button">Go on with it</RouterLink>
            <RouterLink :to="`${into}?again`" class="button plain">Reassess today</RouterLink>
          </template>
        </div>
      </div>
      <AssessmentResult v-if="shown" :assessment="shown" :walk="walk" :editable="!of" :horse="horseId" />
    </div>
  </PageState>
</template>
