<script setup lang="ts">
// The assessment, walked: section by section in any order, in the arena's
// light, mostly by taps. The result builds up beside it.
import { computed, nextTick, onUnmounted, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { keptWords, outbox } from '../../offline/kept'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import PhotoStrip from '../../parts/PhotoStrip.vue'
import PageState from '../../parts/PageState.vue'
import { shortDate } from '../../words'
import BasicsPart from './BasicsPart.vue'
import BodyPart from './BodyPart.vue'
import { at } from '../../cases/doc'
import EventsPart from './EventsPart.vue'
import HandlersPart from './HandlersPart.vue'
import QuestionRow from './QuestionRow.vue'
import TimedGaits from './TimedGaits.vue'
import SoFar from './SoFar.vue'
import SwapPart from './SwapPart.vue'
import TackPart from './TackPart.vue'
import { useAssessment } from '../../cases/useAssessment'
import ZonesPart from './ZonesPart.vue'

const { id, kase } = defineProps<{ id: string; kase: string }>()
const route = useRoute()
const router = useRouter()
const box = outbox.value
if (!box) throw new Error('nobody is signed in')

const walk = useAssessment(kase, id, box)
onUnmounted(() => walk.stop())

// Begun anew when asked so, once what was found before is there.
watch(
  () => walk.data,
  async (data) => {
    if (!data || route.query.again === undefined) return
    await walk.again()
    await router.replace({ query: { ...route.query, again: undefined } })
  },
)

const problem = ref('')
const short = computed(() => route.query.short !== undefined)
const one = computed(() => walk.data?.problems.find((p) => p.problem === problem.value) ?? walk.data?.problems[0])
const sections = computed(() => one.value?.sections.filter((s) => !short.value || s.short) ?? [])
const here = computed(() => String(route.query.at ?? sections.value[0]?.key ?? 'A'))
const section = computed(() => sections.value.find((s) => s.key === here.value) ?? sections.value[0])
const sources = [
  { value: 'seen', text: 'seen in person' },
  { value: 'video', text: 'on video' },
  { value: 'told', text: 'told' },
]
/** As it was tapped here, before it is kept: what is ticked next carries it. */
const told = ref<Record<string, string>>({})
const source = computed(
  () =>
    told.value[section.value?.key ?? ''] ??
    String(walk.typed(`sources/${section.value?.key ?? ''}`) ?? section.value?.source ?? 'seen'),
)

/** Something of the section was noted. */
const touched = (key: string) =>
  one.value?.sections
    .find((s) => s.key === key)
    ?.questions.some((q) => {
      if (q.kind === 'part') return partTouched[q.path]?.() ?? false
      if (q.kind !== 'findings') return at(walk.doc, q.path) !== undefined
      return (
        at(walk.doc, `${q.path}looked/${q.look ?? ''}`) !== undefined ||
        q.choices?.some((c) => at(walk.doc, `${q.path}findings/${c.value}`) !== undefined)
      )
    }) ?? false
const basics = (ridden: boolean) =>
  Object.keys((at(walk.doc, 'basics') ?? {}) as object).some((k) => k.startsWith('ridden.') === ridden)
const partTouched: Record<string, () => boolean> = {
  body: () => at(walk.doc, 'body') !== undefined,
  basics: () => basics(false),
  ridden: () => basics(true),
  zones: () => at(walk.doc, 'zones') !== undefined,
  swap: () => at(walk.doc, `problems/${one.value?.problem ?? ''}/swap`) !== undefined,
  handlers: () => at(walk.doc, 'handlers') !== undefined,
}

const timedNow = computed(() => walk.typed('first_look/timed') as Schemas['GaitTaps'] | undefined)
const next = computed(() => sections.value[sections.value.findIndex((s) => s.key === section.value?.key) + 1])
const to = (key: string) => router.replace({ query: { ...route.query, at: key } })
const nav = useTemplateRef<HTMLElement>('nav')
watch(
  [here, nav],
  async ([now], [before]) => {
    if (now !== before) window.scrollTo(0, 0)
    await nextTick()
    const tab = nav.value?.querySelector<HTMLElement>('[aria-current]')
    if (tab && nav.value) nav.value.scrollLeft = tab.offsetLeft - (nav.value.clientWidth - tab.clientWidth) / 2
  },
  { flush: 'post' },
)

function setSource(word: string) {
  const key = section.value?.key ?? ''
  told.value = { ...told.value, [key]: word }
  walk.mark(`sources/${key}`, word)
}
async function result() {
  await walk.done()
  await router.push(`/horses/${id}/assessment`)
}
function add(p: string) {
  walk.mark(`problems/${p}`, {})
  problem.value = p
}
</script>

<template>
  <div class="walk">
    <PageState :trouble="walk.trouble" :ready="walk.data !== undefined" @again="walk.load">
      <template v-if="walk.data && section && one">
        <header class="top">
          <div class="who">
            <h1>
              <RouterLink :to="`/horses/${id}`">{{ walk.data.horse.name }}</RouterLink>
            </h1>
            <p>
              Assessment: {{ one.name.text }}, {{ walk.view?.id === walk.id ? shortDate(walk.view.on) : 'today' }}
              <span v-if="walk.view && walk.view.id !== walk.id"> · from {{ shortDate(walk.view.on) }}</span>
            </p>
          </div>
          <p class="state" role="status">{{ keptWords }}</p>
          <RouterLink
            :to="{ query: { ...route.query, short: short ? undefined : '', at: undefined } }"
            class="button plain"
            replace
          >
            {{ short ? 'All sections' : 'Quick look' }}
          </RouterLink>
          <button type="button" class="button" @click="result">To the result</button>
        </header>
        <nav ref="nav" class="sections" aria-label="Sections">
          <button
            v-for="s in sections"
            :key="s.key"
            type="button"
            class="section"
            :class="{ touched: touched(s.key) }"
            :aria-current="s.key === section.key ? 'step' : undefined"
            @click="to(s.key)"
          >
            <b>{{ s.key }}</b><span>{{ s.title.text }}</span>
          </button>
        </nav>
        <div class="body">
          <main class="questions stack">
            <div class="row between">
              <h2>{{ section.key }}. {{ section.title.text }}</h2>
              <ChipRow label="How it is known" :choices="sources" :chosen="[source]" @toggle="setSource" />
            </div>
            <div v-if="section.key === 'A'" class="row">
              <button
                v-for="p in walk.data.problems"
                :key="p.problem"
                type="button"
                class="problem"
                :aria-pressed="p.problem === one.problem"
                @click="problem = p.problem"
              >
                {{ p.name.text }}
              </button>
              <details class="more">
                <summary>another problem as well</summary>
                <ChipRow
                  label="Another problem"
                  :choices="walk.data.further.map((p) => ({ value: p.problem as string, text: p.name.text }))"
                  :chosen="[]"
                  @toggle="add"
                />
              </details>
            </div>
            <template v-for="q in section.questions" :key="q.path + q.label.key">
              <template v-if="q.kind === 'part'">
                <BodyPart v-if="q.path === 'body'" :walk="walk" :problem="one.problem" />
                <BasicsPart v-else-if="q.path === 'basics' || q.path === 'ridden'" :walk="walk" :ridden="q.path === 'ridden'" />
                <ZonesPart v-else-if="q.path === 'zones'" :walk="walk" />
                <SwapPart v-else-if="q.path === 'swap'" :walk="walk" :problem="one.problem" />
                <TackPart v-else-if="q.path === 'tack'" :walk="walk" />
                <EventsPart v-else-if="q.path === 'events'" :walk="walk" />
                <HandlersPart v-else-if="q.path === 'handlers'" :walk="walk" />
              </template>
              <template v-else>
                <QuestionRow :question="q" :walk="walk" :source="source" />
                <TimedGaits
                  v-if="q.path === 'first_look/gait'"
                  :timed="walk.data.timed"
                  :now="timedNow"
                  @keep="walk.mark('first_look/timed', { landings: $event })"
                  @clear="walk.mark('first_look/timed', null)"
                />
              </template>
            </template>
            <PhotoStrip v-if="section.key === 'B'" :horse="id" about="mark" />
            <PhotoStrip v-else-if="section.key === 'C'" :horse="id" about="tack" />
            <div class="row">
              <button v-if="next" type="button" class="button" @click="to(next.key)">
                On to {{ next.key }}. {{ next.title.text }}
              </button>
              <button v-else type="button" class="button" @click="result">To the result</button>
              <RouterLink :to="`/horses/${id}/record`">The horse's record</RouterLink>
            </div>
          </main>
          <SoFar :result="walk.view?.result" :problem="one.problem" :behind="walk.waiting.length" class="beside" @go="to" />
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.walk {
  --control: 52px;
  --ink-2: var(--arena-ink);
  background: var(--ivory-0);
  color: var(--arena-ink);
  min-height: 100dvh;
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-2) var(--gap-3);
  padding: var(--gap-2) var(--gap-3);
}
.who {
  flex: 1 1 auto;
}
h1 {
  font-size: var(--step-2);
}
h1 a {
  color: inherit;
}
.sections {
  display: flex;
  overflow-x: auto;
  border-block: var(--stroke);
  position: sticky;
  top: 0;
  background: var(--ivory-0);
  z-index: 2;
}
.section {
  flex: 1 0 auto;
  min-width: 64px;
  min-height: 64px;
  display: grid;
  place-content: center;
  justify-items: center;
  border: 0;
  border-right: 1px solid var(--arena-ink);
  background: var(--ivory-0);
  padding: 0 var(--gap-2);
  cursor: pointer;
}
.section b {
  font: 700 var(--step-2) / 1.1 var(--font-head);
  border-bottom: 3px dashed transparent;
}
.section span {
  font-size: var(--step-0);
}
.section.touched b {
  border-bottom: 3px solid var(--pasture);
}
.section[aria-current] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 330px;
  min-height: calc(100dvh - 140px);
}
.questions {
  padding: var(--gap-3);
  gap: var(--gap-3);
}
.beside {
  padding: var(--gap-3);
  border-left: var(--stroke);
  position: sticky;
  top: 70px;
  max-height: calc(100dvh - 70px);
  overflow-y: auto;
}
.problem {
  min-height: var(--control);
  border: 2px solid var(--arena-ink);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  cursor: pointer;
}
.problem[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
  font-weight: 600;
}
.more summary {
  min-height: var(--control);
  align-content: center;
  cursor: pointer;
}
@media (max-width: 1000px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
  .beside {
    position: static;
    max-height: none;
    border-left: 0;
    border-top: var(--stroke);
  }
}
@media (max-width: 720px) {
  .section {
    min-width: 52px;
  }
  .section span {
    display: none;
  }
  .questions {
    padding: var(--gap-2) var(--gap-3);
  }
}
</style>
