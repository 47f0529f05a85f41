<script setup lang="ts">
// The day: one road down the page, with when to leave, what each visit is for, what goes
// in the truck, and what comes first. Kept on this device for today and tomorrow.
import { computed, onBeforeUnmount, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ahead, api, told } from '../../api/client'
import { useLoad, useSend } from '../../api/use'
import { useKeys } from '../../keys/keys'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { inWords, localDate, longDate } from '../../words'
import { driven, later } from '../../parts/days'
import KitList from './KitList.vue'
import StopRow from './StopRow.vue'
import { useKit } from './useKit'

const route = useRoute()
const router = useRouter()
const today = localDate(Date.now())
const on = ref(typeof route.query.on === 'string' ? route.query.on : today)
const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/day', { params: { query: { on: on.value } } })))
const { has, tick } = useKit(() => on.value, today)
const ordering = useSend()
const opened = ref<string>()
const now = ref(Date.now())
const clock = setInterval(() => (now.value = Date.now()), 30_000)
onBeforeUnmount(() => clearInterval(clock))
// Tomorrow is kept as well, for a morning without a signal.
setTimeout(() => void ahead.GET('/api/day', { params: { query: { on: later(today, 1) } } }).catch(() => undefined), 1500)

const stops = computed(() => data.value?.stops ?? [])
const next = computed(() => stops.value.find((s) => !s.done))
const openId = computed(() => opened.value ?? next.value?.visit.id ?? stops.value[0]?.visit.id)
const missing = computed(() => (data.value?.kit ?? []).filter((k) => !has(k.name)).length)
const minutes = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3))
const until = computed(() => {
  if (!next.value || on.value !== today) return ''
  const d = new Date(now.value)
  const left = minutes(next.value.leave) - (d.getHours() * 60 + d.getMinutes())
  if (left > 0) return `in ${driven(left)}`
  return left === 0 ? 'now' : `${driven(-left)} ago`
})
const summary = computed(() => {
  const d = data.value
  if (!d || !stops.value.length) return ''
  const n = stops.value.length
  return `${inWords(n, true)} ${n === 1 ? 'visit' : 'visits'}, ${driven(d.driving)} of driving, home at ${d.back}.`
})

async function go(day: string) {
  on.value = day
  opened.value = undefined
  await router.replace({ query: day === today ? {} : { on: day } })
  await load()
}

/** Puts a stop before the one above it, by hand. */
async function raise(i: number) {
  const ids = stops.value.map((s) => s.visit.id)
  const [moved] = ids.splice(i, 1)
  if (moved) ids.splice(i - 1, 0, moved)
  await order(ids, true)
}

async function order(visits: string[], byHand: boolean) {
  const d = await ordering.send(() => told(api.PUT('/api/day/order', { body: { on: on.value, visits, by_hand: byHand } })))
  if (d) data.value = d
}
const hands = ref(false)
const print = () => window.print()

useKeys([
  ...Array.from({ length: 9 }, (_, i) => ({
    press: String(i + 1),
    does: i ? '' : 'that stop',
    run: () => (opened.value = stops.value[i]?.visit.id),
  })),
  { press: 'p', does: 'print the run sheet', run: print },
  { press: 'o', does: 'put it in order by hand', run: () => (hands.value = !hands.value) },
  { press: '[', does: 'the day before', run: () => void go(later(on.value, -1)) },
  { press: ']', does: 'the day after', run: () => void go(later(on.value, 1)) },
])
</script>

<template>
  <div class="page day">
    <header class="page-head">
      <h1>{{ longDate(on) }}</h1>
      <div class="facts">
        <p>{{ summary || 'No visit stands on this day.' }}</p>
        <p class="row no-print">
          <button type="button" class="as-link" @click="go(later(on, -1))">‹ day before</button>
          <button v-if="on !== today" type="button" class="as-link" @click="go(today)">today</button>
          <button type="button" class="as-link" @click="go(later(on, 1))">day after ›</button>
        </p>
      </div>
      <div v-if="next" class="leave">
        <p class="by">Leave by {{ next.leave }}</p>
        <p class="quiet">
          {{ [until, missing ? `${inWords(missing)} not in the truck` : 'all in the truck'].filter(Boolean).join(', ') }}
        </p>
      </div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <p v-if="data.late" class="strong note">
          These times can't all be kept: {{ driven(data.late) }} short. Ring whoever can wait, or move one in the diary.
        </p>
        <p v-if="data.guessed" class="note">
          A drive that nobody typed is counted as half an hour. <RouterLink to="/diary/roads">Type it once</RouterLink>
        </p>
        <p v-if="!data.base && stops.length" class="note">
          The day begins at the first yard: <RouterLink to="/diary/roads">say from where you set off</RouterLink>
        </p>
        <WrongNote :trouble="ordering.trouble.value" />
        <div class="sides">
          <section>
            <p v-if="stops.length === 0" class="lead">
              {{ on === today ? 'Nothing today.' : 'Nothing that day.' }}
              <RouterLink :to="`/diary?on=${on}`">Put one in the diary</RouterLink>
            </p>
            <ol>
              <template v-for="(s, i) in stops" :key="s.visit.id">
                <StopRow :stop="s" :n="i + 1" :open="s.visit.id === openId" @open="opened = s.visit.id" />
                <button v-if="hands && i" type="button" class="as-link raise no-print" @click="raise(i)">
                  {{ s.horses.map((h) => h.name).join(', ') }} sooner
                </button>
              </template>
            </ol>
            <p v-if="stops.length" class="home">
              <b>{{ data.back }}</b> home, after {{ driven(data.home) }} of road
            </p>
            <p v-if="stops.length && !data.proven && !data.by_hand" class="quiet">A good order; there may be a better one.</p>
            <p v-if="stops.length" class="row no-print">
              <button type="button" class="as-link" @click="print">Print the run sheet</button>
              <button type="button" class="as-link" @click="hands = !hands">Change the order</button>
              <button
                v-if="data.by_hand"
                type="button"
                class="as-link"
                @click="
                  order(
                    stops.map((s) => s.visit.id),
                    false,
                  )
                "
              >
                Back to the shortest order
              </button>
            </p>
          </section>
          <aside class="stack">
            <section v-if="data.first.length">
              <h2>First of all</h2>
              <ul>
                <li v-for="f in data.first" :key="f.horse + f.say.text" class="first">
                  <RouterLink :to="`/horses/${f.horse}`">{{ f.name }}: {{ f.does.text }}</RouterLink>
                  <p class="quiet">{{ f.say.text }}</p>
                </li>
              </ul>
            </section>
            <KitList v-if="stops.length" :kit="data.kit" :stops="stops.length" :has="has" @tick="tick" />
            <p v-if="stops.length" class="quiet small">{{ data.safety.text }}</p>
          </aside>
        </div>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.leave {
  text-align: right;
}
.by {
  font: 700 1.6rem/1.15 var(--font-head);
}
.sides {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(240px, 300px);
  gap: var(--gap-4);
}
aside h2 {
  font-size: var(--part);
  color: var(--leather);
}
.first {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
.first a {
  font-weight: 700;
  color: inherit;
}
.home {
  padding: var(--gap-2) 0 var(--gap-2) 74px;
}
.raise {
  margin-left: 74px;
}
@media screen and (max-width: 720px) {
  .sides {
    grid-template-columns: minmax(0, 1fr);
  }
  .leave {
    width: 100%;
    text-align: left;
  }
  .home,
  .raise {
    padding-left: 0;
    margin-left: 62px;
  }
}
@media print {
  .sides {
    grid-template-columns: minmax(0, 1fr) 52mm;
    gap: var(--gap-3);
  }
}
</style>
