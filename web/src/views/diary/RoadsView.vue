<script setup lang="ts">
// The roads: how long each drive takes, typed once; where the yards lie and by which
// clocks they live; from where the day begins; the rounds of who travels.
import { computed, reactive, ref, watch } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { localDate } from '../../words'
import CalendarPart from './CalendarPart.vue'
import RoundList from './RoundList.vue'

const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/roads')))
const begins = useSend()
const drives = useSend()
const places = useSend()
const form = reactive({ base: '', at: '', rounds: [] as Schemas['DiaryRound'][] })
const said = ref('')
const placing = reactive({ yard: '', place: '', zone: '' })

watch(data, (d) => {
  if (d) Object.assign(form, { base: d.base ?? '', at: d.at, rounds: d.rounds ?? [] })
})
const nameOf = (id: string) => data.value?.yards.find((y) => y.id === id)?.name ?? ''
const unknown = computed(() => (data.value?.drives ?? []).filter((d) => !d.known).length)

async function keepBegins() {
  const now = await begins.send(() => told(api.PUT('/api/roads/begins', { body: { ...form, at: form.at.slice(0, 5) } })))
  if (!now) return
  data.value = now
  said.value = 'Kept.'
}

async function type(d: Schemas['Drive'], text: string) {
  const minutes = text.trim() === '' ? undefined : Number(text)
  if (minutes === d.minutes && d.typed) return
  const now = await drives.send(() => told(api.PUT('/api/roads/drive', { body: { a: d.a, b: d.b, minutes } })))
  if (now) data.value = now
}

function choose(id: string) {
  const y = data.value?.yards.find((x) => x.id === id)
  Object.assign(placing, { yard: id, place: y?.place ? `${y.place.lat}, ${y.place.lon}` : '', zone: y?.zone ?? '' })
}

async function place() {
  const now = await places.send(() => told(api.PUT('/api/roads/place', { body: { ...placing } })))
  if (!now) return
  data.value = now
  placing.yard = ''
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Roads and calendars</h1>
      <p class="facts">What the run sheet counts with. Typed once, for both ways.</p>
      <div class="acts"><RouterLink to="/diary" class="button plain">Back to the diary</RouterLink></div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <form class="sheet stack" novalidate @submit.prevent="keepBegins">
          <h2>How your day begins</h2>
          <div class="fields">
            <FieldRow v-slot="f" label="From" hint="and back there in the evening">
              <select :id="f.id" v-model="form.base" class="plain-field">
                <option value="">the first yard</option>
                <option v-for="y in data.yards" :key="y.id" :value="y.id">{{ y.name }}</option>
              </select>
            </FieldRow>
            <FieldRow v-slot="f" label="Not before" :wrong="begins.trouble.value?.fields['at']">
              <ElInput :id="f.id" v-model="form.at" type="time" :aria-describedby="f.describedby" />
            </FieldRow>
          </div>
          <RoundList
            v-model="form.rounds"
            :yards="data.yards"
            :today="localDate(Date.now())"
            :wrong="begins.trouble.value?.fields ?? {}"
          />
          <WrongNote :trouble="begins.trouble.value" :shown="['at', ...form.rounds.map((_, i) => `rounds[${i}]`)]" />
          <div class="row">
            <ElButton type="primary" native-type="submit" :loading="begins.sending.value">Keep it</ElButton>
            <p v-if="said" role="status">{{ said }}</p>
          </div>
        </form>
        <section class="sheet stack">
          <h2>Minutes by road</h2>
          <p v-if="data.yards.length < 2" class="quiet">
            There is one yard at most. Add yards under <RouterLink to="/people">People</RouterLink>.
          </p>
          <p v-else-if="unknown" class="quiet">
            {{ unknown }} of {{ data.drives.length }} are not known; each is counted as half an hour.
          </p>
          <WrongNote :trouble="drives.trouble.value" />
          <ul class="drives">
            <li v-for="d in data.drives" :key="d.a + d.b">
              <label>
                <span>{{ nameOf(d.a) }} – {{ nameOf(d.b) }}</span>
                <span class="row">
                  <input
                    type="number"
                    min="0"
                    max="720"
                    class="plain-field minutes"
                    :value="d.typed ? d.minutes : ''"
                    :placeholder="d.known ? String(d.minutes) : '?'"
                    @change="type(d, ($event.target as HTMLInputElement).value)"
                  />
                  <span class="quiet small">{{ d.typed ? 'min' : d.known ? 'min, from the map' : 'min, not known' }}</span>
                </span>
              </label>
            </li>
          </ul>
        </section>
        <CalendarPart />
        <section class="sheet stack">
          <h2>Where the yards lie</h2>
          <p class="quiet">Two numbers as a map gives them, or a geo: link. From them a drive is reckoned that nobody typed.</p>
          <ul>
            <li v-for="y in data.yards" :key="y.id" class="yard">
              <form v-if="placing.yard === y.id" class="stack" novalidate @submit.prevent="place">
                <FieldRow
                  v-slot="f"
                  :label="`${y.name}: its place`"
                  hint="54.48, -3.12"
                  :wrong="places.trouble.value?.fields['place']"
                >
                  <ElInput :id="f.id" v-model="placing.place" maxlength="200" :aria-describedby="f.describedby" />
                </FieldRow>
                <FieldRow
                  v-slot="f"
                  label="Its clocks"
                  :hint="`empty: as here, ${data.zone}`"
                  :wrong="places.trouble.value?.fields['zone']"
                >
                  <ElInput :id="f.id" v-model="placing.zone" maxlength="60" :aria-describedby="f.describedby" />
                </FieldRow>
                <WrongNote :trouble="places.trouble.value" :shown="['place', 'zone']" />
                <div class="row">
                  <ElButton type="primary" native-type="submit" :loading="places.sending.value">Keep it</ElButton>
                  <ElButton @click="placing.yard = ''">Leave it</ElButton>
                </div>
              </form>
              <p v-else class="row between">
                <span
                  ><b>{{ y.name }}</b>
                  <span class="quiet">
                    {{ y.place ? `${y.place.lat}, ${y.place.lon}` : 'not known' }}{{ y.zone ? `, ${y.zone}` : '' }}</span
                  ></span
                >
                <ElButton link @click="choose(y.id)"
                  >change<span class="visually-hidden"> {{ y.name }}</span></ElButton
                >
              </p>
            </li>
          </ul>
        </section>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 260px));
  gap: var(--gap-3);
}
.drives {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(290px, 1fr));
  gap: 0 var(--gap-4);
}
.drives label {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--gap-2);
  min-height: var(--hand);
  border-top: var(--line);
}
.minutes {
  width: 84px;
}
.yard .quiet {
  margin-left: var(--gap-2);
}
.yard {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
