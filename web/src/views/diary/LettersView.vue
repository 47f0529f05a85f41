<script setup lang="ts">
// The letters of an evening: who gets them, what would be written now, and what was.
import { computed, reactive, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { instant, shortDate } from '../../words'
import LetterSheet from './LetterSheet.vue'

type Written = Schemas['EveningLetter']

const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/letters')))
const sending = useSend()
const form = reactive({ person: '', agreed: false })
const said = ref('')
const hour = computed(() => `${String(data.value?.hour ?? 0).padStart(2, '0')}:00`)

async function change(work: () => Promise<Schemas['EveningLetters']>, done = '') {
  said.value = ''
  const now = await sending.send(work)
  if (!now) return
  data.value = now
  said.value = done
}
const mine = () => change(() => told(api.POST('/api/letters/readers', { body: {} })))
const stop = (id: string) =>
  change(() => told(api.DELETE('/api/letters/readers/{id}', { params: { path: { id } } })), 'No more letters go there.')
const write = () => change(() => told(api.POST('/api/letters/tonight')))

async function add() {
  await change(() => told(api.POST('/api/letters/readers', { body: { ...form } })))
  if (!sending.trouble.value) Object.assign(form, { person: '', agreed: false })
}

function state(l: Written) {
  if (l.sent_at) return `sent ${instant(l.sent_at)}`
  if (l.next_at && l.failed) return `could not be sent, tried again ${instant(l.next_at)}: ${l.failed}`
  if (l.next_at) return 'about to go'
  if (l.failed) return `not sent: ${l.failed}`
  return 'would have been sent'
}
</script>

<template>
  <div class="page">
    <header class="page-head">
      <h1>Letters</h1>
      <p class="facts">
        One an evening: what stands on the next day, and what falls due. No letter where there is nothing to tell.
      </p>
      <div class="acts"><RouterLink to="/diary" class="button plain">Back to the diary</RouterLink></div>
    </header>
    <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
      <template v-if="data">
        <section class="sheet stack">
          <h2>Who gets them</h2>
          <p v-if="!data.on" class="quiet">
            No mail server was named when Ivory Bridge was started, so nothing is written or sent.
          </p>
          <p v-else-if="!data.sent" class="quiet">Nothing is sent from here: the letters are kept, to be looked at.</p>
          <p v-if="data.readers.length === 0">Nobody yet.</p>
          <ul>
            <li v-for="r in data.readers" :key="r.id" class="line row between">
              <span>
                <b>{{ r.name }}</b> <span class="quiet">{{ r.email || 'no address' }}</span>
                <span class="quiet block"
                  >{{ r.person ? 'agreed' : 'since' }} {{ instant(r.agreed_at) }}, noted by {{ r.noted_by }}</span
                >
              </span>
              <ElButton size="small" @click="stop(r.id)"
                >Stop<span class="visually-hidden"> the letters of {{ r.name }}</span></ElButton
              >
            </li>
          </ul>
          <p v-if="!data.me"><ElButton @click="mine">Send them to me</ElButton></p>
          <form class="row end" novalidate @submit.prevent="add">
            <FieldRow v-slot="f" label="An owner, or who else agreed" :wrong="sending.trouble.value?.fields['person']">
              <select :id="f.id" v-model="form.person" class="plain-field" :aria-describedby="f.describedby">
                <option value="">choose</option>
                <option v-for="p in data.could" :key="p.id" :value="p.id">{{ p.name }}{{ p.email ? '' : ', no address' }}</option>
              </select>
            </FieldRow>
            <FieldRow v-slot="f" label="Asked" :wrong="sending.trouble.value?.fields['agreed']">
              <ElCheckbox :id="f.id" v-model="form.agreed" label="Was asked, and said yes" />
            </FieldRow>
            <ElButton native-type="submit" :disabled="!form.person" :loading="sending.sending.value">Add</ElButton>
          </form>
          <WrongNote :trouble="sending.trouble.value" :shown="['person', 'agreed']" />
          <p v-if="said" role="status">{{ said }}</p>
        </section>
        <section class="sheet stack">
          <h2>This evening</h2>
          <p v-if="data.tonight.length === 0" class="quiet">Nothing to tell that was not told.</p>
          <LetterSheet v-for="l in data.tonight" :key="l.name" :name="l.name" :subject="l.subject" :body="l.body" open />
          <p v-if="data.on && data.tonight.length > 0" class="row">
            <span class="quiet">Written at {{ hour }}.</span> <ElButton @click="write">Write them now</ElButton>
          </p>
        </section>
        <section class="sheet stack">
          <h2>Written</h2>
          <p v-if="data.written.length === 0" class="quiet">None yet. They stay here for sixty days.</p>
          <LetterSheet
            v-for="l in data.written"
            :key="l.id"
            :name="l.name"
            :subject="l.subject"
            :body="l.body"
            :says="`${shortDate(l.on)}, to ${l.address}, ${state(l)}${l.visits ? '. The visits go with it, for a calendar' : ''}`"
          />
        </section>
      </template>
    </PageState>
  </div>
</template>

<style scoped>
.line {
  padding: var(--gap-1) 0;
  border-top: var(--line);
}
.block {
  display: block;
}
.end {
  align-items: flex-end;
}
</style>
