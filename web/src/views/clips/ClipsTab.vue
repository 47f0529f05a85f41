<script setup lang="ts">
// A horse's clips, the newest first; another is sent from here, in pieces that go on after
// a cut.
import { v7 } from 'uuid'
import { computed, reactive, ref } from 'vue'
import { api, told, Trouble } from '../../api/client'
import { me } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import { shortDate, size } from '../../words'
import FilmList from './FilmList.vue'
import { NotSent, sendClip } from '../../parts/sendClip'

const { id } = defineProps<{ id: string }>()
const { data, trouble, at, load } = useLoad(() => told(api.GET('/api/horses/{id}/clips', { params: { path: { id } } })))
const films = useLoad(() => told(api.GET('/api/horses/{id}/films', { params: { path: { id } } })))
const sending = useSend()
const form = reactive({ name: '', view: '', on: me.value?.today ?? '' })
const share = ref<number>()
const wrong = computed(() => sending.trouble.value?.fields['film'] ?? sending.trouble.value?.message)

async function add(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  const most = data.value?.most ?? 0
  if (!file) return
  const done = await sending.send(async () => {
    if (file.size > most) throw new Trouble(413, `This film has ${size(file.size)}. Send one of ${size(most)} or less.`)
    await sendClip(
      file,
      { horse: id, name: form.name, view: form.view, on: form.on },
      { endpoint: '/api/clips/arriving', make: v7, told: (s) => (share.value = s) },
    ).catch((error: unknown) => {
      throw error instanceof NotSent ? new Trouble(error.status, error.message) : error
    })
    return true
  })
  input.value = ''
  share.value = undefined
  if (!done) return
  Object.assign(form, { name: '', view: '' })
  await Promise.all([load(), films.load()])
}

async function remove(clip: string) {
  const now = await sending.send(() => told(api.DELETE('/api/clips/{id}', { params: { path: { id: clip } } })))
  if (now) data.value = now
}

const comes = (c: Schemas['Clip']) =>
  c.timed?.says.text ?? (c.unread ? "What was tapped on it can't be read." : 'Nothing tapped on it yet.')
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" :at="at" @again="load">
    <div v-if="data" class="stack">
      <section class="sheet stack">
        <h2>Clips</h2>
        <p v-if="data.list.length === 0" class="quiet">
          None yet. A film of ten strides from the side settles whether it walks or paces.
        </p>
        <ul>
          <li v-for="c in data.list" :key="c.id" class="line row between">
            <div>
              <p>
                <RouterLink :to="`/clips/${c.id}`"
                  ><b>{{ c.name || 'A clip' }}</b></RouterLink
                >{{ ' ' }}
                <span class="quiet">
                  {{ shortDate(c.on) }}, {{ c.sent_by ? `from ${c.sent_by}` : `by ${c.added_by}` }}, {{ size(c.bytes) }}</span
                >
              </p>
              <p>{{ comes(c) }}{{ c.gait ? ` The rider calls it ${c.gait}.` : '' }}</p>
            </div>
            <ElButton link @click="remove(c.id)"
              >take out<span class="visually-hidden"> {{ c.name }}</span></ElButton
            >
          </li>
        </ul>
      </section>
      <FilmList v-if="films.data.value" :list="films.data.value" />
      <section class="sheet stack">
        <h2>Add a clip</h2>
        <p v-if="!data.agreed">
          Films need the owner's consent, as photographs do: note it under
          <RouterLink :to="`/horses/${id}/assessment`">photographs</RouterLink> first.
        </p>
        <template v-else>
          <div class="row end">
            <FieldRow v-slot="f" label="What it shows"><ElInput :id="f.id" v-model="form.name" maxlength="120" /></FieldRow>
            <FieldRow v-slot="f" label="Of the list">
              <select :id="f.id" v-model="form.view" class="plain-field">
                <option value="">something else</option>
                <option v-for="v in films.data.value?.views" :key="v.key" :value="v.key">{{ v.says.text }}</option>
              </select>
            </FieldRow>
            <FieldRow v-slot="f" label="Filmed on"><ElInput :id="f.id" v-model="form.on" type="date" /></FieldRow>
            <label class="button plain file">
              {{ sending.sending.value ? 'On its way' : 'Choose a film' }}
              <input
                type="file"
                accept="video/mp4,video/quicktime,video/webm"
                class="visually-hidden"
                :disabled="sending.sending.value"
                @change="add"
              />
            </label>
          </div>
          <p v-if="share !== undefined" role="status">
            <progress :value="share" max="1" aria-label="Arrived" /> {{ Math.round(share * 100) }} % has arrived. It goes on after
            a cut.
          </p>
          <p class="quiet small">MP4, MOV or WebM, up to {{ size(data.most) }}. The place where it was filmed is taken out.</p>
        </template>
        <p v-if="data.room" class="small" role="status">{{ data.room }}</p>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      </section>
    </div>
  </PageState>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
.end {
  align-items: flex-end;
}
progress {
  width: 200px;
}
</style>
