<script setup lang="ts">
// Calendars that a phone reads by itself: one's own diary, and each owner's own horses.
// And the times that are taken elsewhere, brought in from another calendar.
import { computed, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { copied } from '../../parts/copy'
import { instant } from '../../words'

const { data, trouble, load } = useLoad(() => told(api.GET('/api/feeds')))
const people = useLoad(() => told(api.GET('/api/people')))
const making = useSend()
const taking = useSend()
const fresh = ref<Schemas['Feed']>()
const person = ref('')
const text = ref('')
const said = ref('')
const taken = ref('')
const on = computed(() => (data.value ?? []).filter((f) => !f.off_at))
const address = computed(() => (fresh.value?.path ? location.origin + fresh.value.path : ''))
const owners = computed(() => (people.data.value ?? []).filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind)))

async function make(of: string) {
  const f = await making.send(() => told(api.POST('/api/feeds', { body: { person: of || undefined } })))
  if (!f) return
  fresh.value = f
  said.value = ''
  await load()
}

async function off(id: string) {
  const now = await making.send(() => told(api.DELETE('/api/feeds/{id}', { params: { path: { id } } })))
  if (!now) return
  data.value = now
  if (fresh.value?.id === id) fresh.value = undefined
}

async function copy() {
  said.value = await copied(address.value)
}

async function take() {
  const now = await taking.send(() => told(api.PUT('/api/busy', { body: { text: text.value } })))
  if (now) taken.value = now.times ? `${now.times} taken times stand in the diary.` : 'Nothing is taken any more.'
}

async function read(e: Event) {
  const file = (e.target as HTMLInputElement).files?.[0]
  if (file) text.value = await file.text()
}
</script>

<template>
  <section class="sheet stack">
    <h2>Calendars</h2>
    <p class="quiet">
      An address that a phone's calendar reads by itself. Whoever has it sees it: switch it off when a phone is lost.
    </p>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <ul>
        <li v-for="f in on" :key="f.id" class="line row between">
          <span>
            <b>{{ f.mine ? 'Your diary' : f.name }}</b>
            <span class="quiet">
              made {{ instant(f.made_at) }}, {{ f.read_at ? `read ${instant(f.read_at)}` : 'not read yet' }}</span
            >
          </span>
          <ElButton size="small" @click="off(f.id)">Switch off</ElButton>
        </li>
      </ul>
      <div v-if="fresh" class="stack" role="status">
        <p class="strong">This is the address. It is shown this once.</p>
        <p class="address">{{ address }}</p>
        <p class="row">
          <ElButton type="primary" @click="copy">Copy</ElButton> <span v-if="said">{{ said }}</span>
        </p>
      </div>
      <div class="row">
        <ElButton @click="make('')">Make one of my diary</ElButton>
        <label class="row">
          <span>or for</span>
          <select v-model="person" class="plain-field who">
            <option value="">an owner</option>
            <option v-for="p in owners" :key="p.id" :value="p.id">{{ p.name }}</option>
          </select>
        </label>
        <ElButton :disabled="!person" @click="make(person)">Make it</ElButton>
      </div>
      <WrongNote :trouble="making.trouble.value" />
    </PageState>
    <form class="stack" novalidate @submit.prevent="take">
      <FieldRow
        v-slot="f"
        label="Times that are taken elsewhere"
        hint="The text of an .ics file, or the file. It takes the place of what was taken in before."
        :wrong="taking.trouble.value?.fields['text']"
      >
        <ElInput :id="f.id" v-model="text" type="textarea" :rows="3" maxlength="200000" :aria-describedby="f.describedby" />
      </FieldRow>
      <p class="row">
        <input type="file" accept=".ics,text/calendar" aria-label="A calendar file" @change="read" />
        <ElButton native-type="submit" :loading="taking.sending.value">{{
          text.trim() ? 'Take them in' : 'Take none any more'
        }}</ElButton>
        <span v-if="taken" role="status">{{ taken }}</span>
      </p>
      <WrongNote :trouble="taking.trouble.value" :shown="['text']" />
    </form>
  </section>
</template>

<style scoped>
.line {
  padding: var(--gap-1) 0;
  border-top: var(--line);
}
.address {
  overflow-wrap: anywhere;
  font-weight: 700;
}
.who {
  width: 220px;
}
</style>
