<script setup lang="ts">
// One horse, for a worried person: what is forbidden, is it better and by what, what
// to do, what to leave alone, when the trainer comes, and whom to ring.
import { computed } from 'vue'
import { localDate, longDate } from '../dates'
import BridgeArch from './BridgeArch.vue'
import type { HorsePage, Log, Pages } from './client'
import HomeCard from './HomeCard.vue'
import { standing, type Waiting } from './kept'
import LogList from './LogList.vue'
import NotNow from './NotNow.vue'
import FilmSend from './FilmSend.vue'
import PhotoSend from './PhotoSend.vue'
import TimeRope from './TimeRope.vue'
import TryBeads from './TryBeads.vue'
import VisitSheet from './VisitSheet.vue'

const { page, pages, waiting, token } = defineProps<{ page: HorsePage; pages: Pages; waiting: Waiting[]; token: string }>()
const emit = defineEmits<{ write: [what: { step?: string; right?: Log }] }>()

const part = (key: string) => page.parts.find((p) => p.key === key)?.says ?? []
const answer = (id: string) => part('short').find((s) => s.id === `short.${id}`)?.text ?? ''
const logs = computed(() => standing([...waiting.map((w) => w.log), ...page.logs]).sort((a, b) => b.at - a.at))
/** Practice stops on the page itself, before the server has heard of it. */
const stopped = computed(() => {
  const faces = new Set(pages.choices.faces.filter((f) => f.stops).map((f) => f.arousal))
  const here = logs.value.filter((l) => waiting.some((w) => w.log.id === l.id) && l.done && faces.has(l.arousal ?? 0))
  return new Set([...here.map((l) => l.step), ...page.stops.map((s) => s.step)])
})
const forbidden = computed(() => part('first').filter((s) => s.id.startsWith('first.forbid')))
const asked = computed(() => [...part('first').filter((s) => !forbidden.value.includes(s)), ...part('call')])
const steps = computed(() => (page.card?.steps ?? []).filter((s) => !stopped.value.has(s.step)))
const waits = computed(() => page.card?.steps.filter((s) => stopped.value.has(s.step)) ?? [])
const trainer = computed(() => page.contacts.find((c) => c.what === 'trainer'))
const today = localDate(Date.now())
</script>

<template>
  <p v-if="page.unread" class="alone">{{ page.unread }}</p>
  <article v-else>
    <NotNow v-for="s in forbidden" :key="s.id">{{ s.text }}</NotNow>
    <header>
      <p>
        {{ page.name }}<template v-if="pages.for"> · for {{ pages.for }}</template>
      </p>
      <h1>{{ answer('better') }}</h1>
    </header>
    <ul class="answers">
      <li>
        {{
          waits.length > 0 && steps.length === 0 ? `Leave practice alone until ${pages.practice} has rung you.` : answer('may')
        }}
      </li>
      <li>
        <b>{{ answer('must_not') }}</b>
      </li>
      <li>{{ answer('next') }}</li>
      <li>{{ answer('ring') }}</li>
    </ul>
    <TimeRope v-if="page.time" :time="page.time" />
    <TryBeads v-if="page.tries" :tries="page.tries" />
    <section>
      <h2>{{ page.name }}’s bridge</h2>
      <BridgeArch :bridge="page.bridge" :name="page.name" />
      <p v-if="page.goal"><b>The goal:</b> {{ page.goal }}</p>
    </section>
    <section v-if="page.visit?.figures.length">
      <h2>Against the first day</h2>
      <dl>
        <template v-for="f in page.visit.figures" :key="f.label">
          <dt>{{ f.label }}</dt>
          <dd>
            <b>{{ f.before === f.after ? f.after : `${f.before} → ${f.after}` }}</b><span>{{ f.means }}</span>
          </dd>
        </template>
      </dl>
    </section>
    <section>
      <h2>At home</h2>
      <NotNow v-for="s in page.stops" :key="s.log">{{ s.says.text }}</NotNow>
      <NotNow v-for="s in waits" :key="s.step">
        {{ s.plain }}: practice of it has stopped. {{ pages.practice }} rings you; until then leave it alone.
      </NotNow>
      <HomeCard v-if="page.card && steps.length" :card="page.card" :steps="steps" />
      <p v-for="s in part('home')" v-else :key="s.id">{{ s.text }}</p>
      <LogList
        :logs="logs"
        :choices="pages.choices"
        :card="page.card"
        :today="today"
        :waiting="waiting.map((w) => w.log.id)"
        @right="emit('write', { right: $event })"
      />
    </section>
    <PhotoSend :token="token" :horse="page.id" :trainer="pages.practice" />
    <FilmSend :token="token" :horse="page.id" :trainer="pages.practice" />
    <section v-if="asked.length">
      <h2>To be asked</h2>
      <p v-for="s in asked" :key="s.id">{{ s.text }}</p>
    </section>
    <section>
      <h2>Whom to ring</h2>
      <p v-for="c in page.contacts" :key="c.phone" class="ring">
        <a :href="`tel:${c.phone}`"
          ><b>{{ c.name }}</b
          ><span>{{ c.what === 'vet' ? 'hurt, lame, breathing hard' : `anything about ${page.name}` }}</span
          ><u>{{ c.phone }}</u></a
        >
      </p>
      <p v-if="page.contacts.length === 0">{{ pages.practice }} has put no number here. Write it down when you speak.</p>
    </section>
    <details v-if="page.visit">
      <summary>The page of the visit on {{ longDate(page.visit.date) }}</summary>
      <VisitSheet :visit="page.visit" />
    </details>
    <p v-for="s in part('care')" :key="s.id" class="small">{{ s.text }}</p>
    <div v-if="trainer || steps.length" class="bar" :class="{ one: !trainer || !steps.length }">
      <a v-if="trainer" :href="`tel:${trainer.phone}`">Ring</a>
      <button v-if="steps.length" class="main" type="button" @click="emit('write', {})">Write down today</button>
    </div>
  </article>
</template>

<style scoped>
article {
  padding-bottom: 96px;
}
header {
  padding: var(--gap-2) var(--gap-3) 0;
}
.answers {
  margin: var(--gap-3) var(--gap-3) 0;
  padding: 0;
  list-style: none;
}
.answers li {
  padding: var(--gap-2) 0;
  border-top: var(--line);
}
dt {
  margin-top: var(--gap-2);
}
dt::first-letter {
  text-transform: uppercase;
}
dd {
  margin: 0;
}
dd span {
  display: block;
}
dd b {
  font: 700 1.4rem/1.2 var(--font-head);
}
.ring a {
  display: grid;
  grid-template-columns: 1fr auto;
  align-content: center;
  min-height: 68px;
  border-bottom: 1px solid var(--ink-2);
  line-height: 1.2;
  text-decoration: none;
}
.ring u {
  grid-area: 1 / 2 / 3 / 3;
  align-self: center;
  font-weight: 700;
  text-underline-offset: 4px;
}
details {
  border-top: 2px solid;
  margin-top: var(--gap-3);
}
summary {
  padding: var(--gap-3);
  min-height: var(--touch);
  font-weight: 700;
}
</style>
