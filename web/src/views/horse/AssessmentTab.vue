<script setup lang="ts">
// What the newest assessment comes to, or an older one as it was judged on its
// day; and the way into the walk.
import { computed, onUnmounted, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useKeys } from '../../keys/keys'
import { outbox } from '../../offline/kept'
import OneTap from '../../parts/OneTap.vue'
import PageState from '../../parts/PageState.vue'
import { shortDate } from '../../words'
import { useAssessment } from '../../cases/useAssessment'
import AssessmentResult from './AssessmentResult.vue'
import { useHorseFile } from '../../cases/file'

const { file, reload } = useHorseFile()
const route = useRoute()
const router = useRouter()
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

const leaves = computed(() => {
  const a = shown.value
  if (!a) return []
  const found = new Set(a.result.problems.flatMap((p) => p.causes.flatMap((c) => [...c.for, ...c.against].map((e) => e.finding))))
  const gaps = new Set(a.result.problems.flatMap((p) => p.unlooked.map((u) => u.text)))
  return [
    { key: 'causes', name: `all findings, ${found.size || 'none'}` },
    { key: 'looks', name: `looks not taken, ${gaps.size || 'none'}` },
    { key: 'ask', name: 'whom to ask' },
    { key: 'otherwise', name: 'I judge otherwise' },
    ...(a.from ? [{ key: 'changes', name: 'what changed' }] : []),
  ]
})
const links = computed(() => {
  if (of.value || !walk.view) return []
  return [
    { to: into.value, name: 'Go on with it' },
    { to: `${into.value}?again`, name: 'Reassess today' },
  ]
})
useKeys([
  {
    press: 'l',
    does: 'look now',
    run: () => {
      const at = shown.value?.result.problems.find((p) => p.telling)?.telling?.section
      void router.push(at ? `${into.value}?at=${at}` : into.value)
    },
  },
  {
    press: 'w',
    does: 'write to the first',
    run: () => {
      const first = shown.value?.result.referrals[0]
      if (first) void router.push(`/horses/${horseId}/letter/${encodeURIComponent(first.key)}`)
    },
  },
])

// The header of the file follows what is marked here.
watch(
  () => walk.view?.version,
  (now, before) => before !== undefined && now !== before && void reload(),
)
</script>

<template>
  <PageState :trouble="walk.trouble" :ready="walk.data !== undefined" @again="walk.load">
    <div v-if="walk.data" class="leafpage">
      <section v-if="!walk.view" class="first">
        <p class="lead">Begin with the owner's story.</p>
        <p>Not assessed yet. Hear the owner, look on, then take it in hand; leave out what you did not look at.</p>
        <p class="acts">
          <RouterLink :to="into" class="button">Begin the assessment</RouterLink>
          <RouterLink :to="`${into}?short`" class="button plain">Quick look</RouterLink>
        </p>
      </section>
      <p v-if="of" class="older">
        As it was judged on {{ shown ? shortDate(shown.on) : '' }}.
        <RouterLink :to="{ query: {} }">Back to the newest</RouterLink>
      </p>
      <AssessmentResult v-if="shown" :assessment="shown" :walk="walk" :editable="!of" :horse="horseId" :into="into" />
      <OneTap v-if="shown" :leaves="leaves" front="the result" :links="links" />
    </div>
  </PageState>
</template>

<style scoped>
.first {
  display: grid;
  gap: var(--gap-2);
  padding: var(--gap-4) 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
}
.older {
  padding: 5px 0;
  border-bottom: var(--line);
}
</style>
