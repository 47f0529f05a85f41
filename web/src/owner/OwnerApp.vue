<script setup lang="ts">
// What a private link opens: how each horse stands, what may be practised, and
// where practice is written down. What was read last is shown while there is no
// signal.
import { computed, onMounted, ref } from 'vue'
import { pages as ask, practise, signOut, tokenOf, type Log } from './client'
import HorseSheet from './HorseSheet.vue'
import { keep, read, type Shelf } from './kept'
import PracticeForm from './PracticeForm.vue'
import { clock, longDate } from '../dates'
import VisitSheet from './VisitSheet.vue'

const token = ref(tokenOf(location.hash))
const shelf = ref<Shelf>({ waiting: [] })
const away = ref(false)
const ended = ref('')
const unkept = ref(false)
const chosen = ref('')
const writing = ref<{ horse: string; step?: string; right?: Log }>()

const pages = computed(() => (ended.value ? undefined : shelf.value.pages))
const horse = computed(() => pages.value?.horses.find((h) => h.id === chosen.value) ?? pages.value?.horses[0])
const written = computed(() => pages.value?.horses.find((h) => h.id === writing.value?.horse))
const mine = computed(() => shelf.value.waiting.filter((w) => w.horse === horse.value?.id))
const refused = computed(() => shelf.value.waiting.filter((w) => w.refused))

function put(change: Partial<Shelf>) {
  shelf.value = { ...shelf.value, ...change }
  unkept.value = !keep(token.value, shelf.value)
}

async function load() {
  const answer = await ask(token.value)
  if ('got' in answer) {
    away.value = false
    ended.value = ''
    put({ pages: answer.got, at: Date.now() })
    document.title = answer.got.horses.map((h) => h.name).join(', ') || (answer.got.visit?.horse ?? 'Your horse')
  } else if ('away' in answer) away.value = true
  else {
    ended.value = answer.refused
    const known = shelf.value.pages
    // Nothing of a link that opens no more stays on the phone, but whom to ring.
    put({ pages: known && { ...known, horses: [], visit: undefined } })
  }
}

let sending = false
async function send() {
  if (sending) return
  sending = true
  try {
    for (const id of new Set(shelf.value.waiting.filter((w) => !w.refused).map((w) => w.horse))) {
      const logs = shelf.value.waiting.filter((w) => w.horse === id && !w.refused).map((w) => w.log)
      const answer = await practise(token.value, id, logs)
      if ('away' in answer) {
        away.value = true
        return
      }
      if ('refused' in answer) {
        put({
          waiting: shelf.value.waiting.map((w) => (logs.some((l) => l.id === w.log.id) ? { ...w, refused: answer.refused } : w)),
        })
        if (answer.gone) await load()
        continue
      }
      const kept = answer.got
      away.value = false
      const left = shelf.value.waiting
        .filter((w) => !kept.logs.some((l) => l.id === w.log.id && l.kept))
        .map((w) => ({ ...w, refused: kept.logs.find((l) => l.id === w.log.id)?.say ?? w.refused }))
      const all = shelf.value.pages
      put({ waiting: left, pages: all && { ...all, horses: all.horses.map((h) => (h.id === kept.page.id ? kept.page : h)) } })
    }
  } finally {
    sending = false
  }
}

async function keepLog(id: string, log: Log) {
  put({ waiting: [...shelf.value.waiting, { horse: id, log }] })
  writing.value = undefined
  scrollTo({ top: 0 })
  await send()
}

const letGo = (id: string) => put({ waiting: shelf.value.waiting.filter((w) => w.log.id !== id) })

/** Of an owner's own account; a private link has nothing to sign out of. */
async function leave() {
  if (!(await signOut())) {
    away.value = true
    return
  }
  put({ pages: undefined }) // what was not sent yet stays
  location.assign('/sign-in')
}

async function start() {
  token.value = tokenOf(location.hash)
  ended.value = ''
  shelf.value = read(token.value)
  await load()
  if (!ended.value) await send()
}

onMounted(() => {
  void start()
  addEventListener('hashchange', () => void start())
  addEventListener('online', () => void start())
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible' && !writing.value) void start()
  })
})
</script>

<template>
  <main>
    <p v-if="away" class="strip" role="status">
      No signal<template v-if="shelf.at">: this is as of {{ clock(shelf.at) }}</template
      >.<template v-if="shelf.waiting.length"> {{ shelf.waiting.length }} kept here, sent later.</template>
    </p>
    <p v-if="unkept" class="strip" role="alert">This phone keeps nothing. Wait for a signal before you close the page.</p>
    <section v-for="w in refused" :key="w.log.id" class="strip" role="alert">
      <p>
        <b>Not sent: {{ longDate(w.log.on) }}.</b> {{ w.refused }}
      </p>
      <p v-if="w.log.note">You wrote: {{ w.log.note }}</p>
      <button type="button" @click="letGo(w.log.id)">Let it go</button>
    </section>
    <section v-if="ended" class="alone">
      <h1>This page has closed.</h1>
      <p>{{ ended }}</p>
      <p v-if="!token"><a class="big" href="/sign-in">Sign in</a></p>
      <p v-if="shelf.pages?.phone">
        <a class="big" :href="`tel:${shelf.pages.phone}`">Ring {{ shelf.pages.practice }}, {{ shelf.pages.phone }}</a>
      </p>
    </section>
    <section v-else-if="!pages" class="alone">
      <template v-if="away">
        <h1>No signal</h1>
        <p>This page was not read on this phone yet. Open it once where there is a signal; then it works without.</p>
        <button type="button" @click="start">Try again</button>
      </template>
      <p v-else>One moment.</p>
    </section>
    <PracticeForm
      v-else-if="writing && written?.card"
      :page="written"
      :choices="pages.choices"
      :trainer="pages.practice"
      :step="writing.step"
      :right="writing.right"
      :away="away"
      @keep="keepLog(written.id, $event)"
      @leave="writing = undefined"
    />
    <VisitSheet v-else-if="pages.visit" :visit="pages.visit" alone />
    <template v-else>
      <p v-if="!token" class="out"><button type="button" @click="leave">Sign out</button></p>
      <nav v-if="pages.horses.length > 1" aria-label="Horses">
        <button v-for="h in pages.horses" :key="h.id" type="button" :aria-pressed="h.id === horse?.id" @click="chosen = h.id">
          {{ h.name }}
        </button>
      </nav>
      <HorseSheet
        v-if="horse"
        :key="horse.id"
        :page="horse"
        :pages="pages"
        :waiting="mine"
        :token="token"
        @write="writing = { horse: horse.id, ...$event }"
      />
      <section v-if="!horse" class="alone">
        <h1>No horse here yet</h1>
        <p>{{ pages.practice }} has no horse on record for {{ pages.for }}.</p>
      </section>
    </template>
  </main>
</template>

<style scoped>
.out {
  text-align: right;
}
.out button {
  border-width: 0;
  text-decoration: underline;
}
</style>
