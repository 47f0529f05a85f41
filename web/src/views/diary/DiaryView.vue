<script setup lang="ts">
// The diary: leaves of a paper diary side by side, weeks as rows of days. Ink is
// agreed, pencil is proposed. A clash is shown; nothing is moved but by hand.
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import { useKeys } from '../../keys/keys'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { count, inWords, localDate, longDate } from '../../words'
import CancelNote from './CancelNote.vue'
import DiaryWeek from './DiaryWeek.vue'
import { later, monday } from '../../parts/days'
import VisitForm from './VisitForm.vue'

type Visit = Schemas['Booked']

const weeks = 3
const route = useRoute()
const one = (name: string) => (typeof route.query[name] === 'string' ? route.query[name] : undefined)
const from = ref(monday(one('on') ?? localDate(Date.now())))
const { data, trouble, at, load } = useLoad(() =>
  told(
    api.GET('/api/diary', { params: { query: { from: from.value, days: 7 * weeks, yard: one('yard'), person: one('person') } } }),
  ),
)
watch(() => [route.query.yard, route.query.person], load)

// Where the weeks lie one below the other, the diary opens at today: what has passed of
// these weeks is a tap away.
const earlier = ref(false)
const passed = computed(() => {
  const days = data.value?.days ?? []
  const today = data.value?.today ?? ''
  return days.some((d) => d.on < today) && days.some((d) => d.on >= today)
})
const editing = ref<{ visit?: Visit; on?: string; horse?: string }>()
const cancelled = ref<Schemas['Cancelled']>()
const unplanned = computed(() => (data.value?.horses ?? []).filter((h) => !h.planned))
const moving = useSend()
const said = ref('')

const leaves = computed(() =>
  Array.from({ length: weeks }, (_, i) => data.value?.days.slice(7 * i, 7 * i + 7) ?? []).filter((w) => w.length),
)
const visits = computed(() => data.value?.days.flatMap((d) => d.visits.filter((v) => !v.cancelled)) ?? [])
const says = computed(() => {
  const ink = visits.value.filter((v) => v.agreed).length
  const pencil = visits.value.length - ink
  const clashes = data.value?.days.reduce((n, d) => n + d.clashes.length, 0) ?? 0
  if (!visits.value.length) return 'Nothing stands in these weeks yet.'
  const parts = [ink && `${count(ink, 'visit', 'visits')} in ink`, pencil && `${inWords(pencil)} in pencil`]
    .filter(Boolean)
    .join(', ')
  return `${parts}. ${clashes ? `${inWords(clashes, true)} ${clashes === 1 ? 'clash' : 'clashes'}.` : 'No clash.'}`
})

async function turn(days: number) {
  from.value = later(from.value, days)
  await load()
}
async function today() {
  from.value = monday(localDate(Date.now()))
  await load()
}

/** Puts a visit to another day, or into ink, as it is otherwise. */
async function change(v: Visit, now: Partial<Pick<Visit, 'on' | 'agreed'>>) {
  const body = {
    horses: v.horses.map((h) => h.id),
    yard: v.yard,
    who: v.who,
    on: v.on,
    at: v.at,
    minutes: v.minutes,
    aim: v.aim,
    agreed: v.agreed,
    version: v.version,
    ...now,
  }
  const kept = await moving.send(() => told(api.PUT('/api/visits/{id}', { params: { path: { id: v.id } }, body })))
  if (!kept) return
  const names = v.horses.map((h) => h.name).join(', ')
  said.value = now.on ? `${names}: moved to ${longDate(now.on)}.` : `${names}: in ink.`
  if (kept.clashes.length) said.value += ` ${kept.clashes.map((c) => c.says.text).join(' ')}`
  await load()
}

async function done(gone?: Schemas['Cancelled']) {
  editing.value = undefined
  cancelled.value = gone
  await load()
}

useKeys([
  { press: 'v', does: 'put in a visit', run: () => (editing.value = {}) },
  { press: '[', does: 'three weeks back', run: () => void turn(-7 * weeks) },
  { press: ']', does: 'three weeks on', run: () => void turn(7 * weeks) },
  { press: 't', does: 'today', run: () => void today() },
])
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Diary</h1>
      <div class="facts">
        <p v-if="data?.only">
          Only <b>{{ data.only }}</b>. <RouterLink to="/diary">Show all</RouterLink>
        </p>
        <p>{{ says }}</p>
        <p v-if="said" role="status" class="small">{{ said }}</p>
      </div>
      <div class="acts no-print">
        <button type="button" class="as-link" @click="turn(-7)">‹ back</button>
        <button type="button" class="as-link" @click="today">today</button>
        <button type="button" class="as-link" @click="turn(7)">on ›</button>
        <ElButton type="primary" @click="editing = {}">Put in a visit</ElButton>
      </div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <WrongNote :trouble="moving.trouble.value" />
        <CancelNote v-if="cancelled" :gone="cancelled" @close="cancelled = undefined" />
        <VisitForm
          v-if="editing"
          :key="editing.visit?.id ?? editing.horse ?? 'new'"
          :visit="editing.visit"
          :on="editing.on"
          :horse="editing.horse"
          :horses="data.horses"
          :people="data.people"
          @done="done"
          @leave="editing = undefined"
        />
        <button v-if="passed && !earlier" type="button" class="as-link earlier" @click="earlier = true">Earlier this week</button>
        <div class="leaves" :class="{ today: passed && !earlier }">
          <DiaryWeek
            v-for="w in leaves"
            :key="w[0]?.on"
            :days="w"
            :today="data.today"
            @open="editing = { visit: $event }"
            @ink="change($event, { agreed: true })"
            @move="(v, on) => change(v, { on })"
            @put="editing = { on: $event }"
          />
        </div>
        <footer class="foot">
          <p>
            <b>Ink</b> is agreed. <i class="pencil">Pencil</i> is proposed: ink it with a tap. Drag a visit to another day, or
            press <kbd>m</kbd> on it.
          </p>
          <p v-if="data.beyond">
            <b>{{ longDate(data.beyond.on) }}, over the page: {{ data.beyond.name }}.</b> {{ data.beyond.says.text }}
          </p>
          <p v-if="unplanned.length">
            No visit waits for
            <template v-for="(h, i) in unplanned" :key="h.id"
              ><template v-if="i">, </template
              ><button type="button" class="as-link" @click="editing = { horse: h.id }">{{ h.name }}</button></template
            >.
          </p>
          <p><RouterLink to="/diary/roads">Roads, rounds, calendars, and how the day begins</RouterLink></p>
          <p><RouterLink to="/diary/letters">Letters of the evening</RouterLink></p>
        </footer>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.leaves {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 var(--gap-4);
}
.earlier {
  display: none;
  min-height: var(--hand);
}
.foot {
  display: grid;
  gap: var(--gap-1);
  padding: var(--gap-2) 0 var(--gap-4);
}
.pencil {
  color: var(--ink-2);
  text-decoration: underline dashed;
  text-underline-offset: 3px;
}
@media (max-width: 900px) {
  .leaves {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--gap-4);
  }
  .earlier {
    display: inline-block;
  }
  .leaves.today :deep(.day.past) {
    display: none;
  }
}
@media print {
  .leaves {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
