<script setup lang="ts">
// Photographs of a horse, its tack, or marks on it; the owner's consent comes
// first.
import { computed, ref } from 'vue'
import { api, told, Trouble } from '../api/client'
import { me } from '../api/me'
import { useLoad, useSend } from '../api/use'
import { shortDate } from '../words'
import ChipRow from './ChipRow.vue'
import FieldRow from './FieldRow.vue'
import PageState from './PageState.vue'
import { shrink } from './shrink'

type About = 'horse' | 'tack' | 'mark'
const { horse, about = undefined } = defineProps<{ horse: string; about?: About }>()

const { data, trouble, load } = useLoad(() => told(api.GET('/api/horses/{id}/photographs', { params: { path: { id: horse } } })))
const sending = useSend()
const kinds = [
  { value: 'horse' as const, text: 'the horse' },
  { value: 'tack' as const, text: 'tack' },
  { value: 'mark' as const, text: 'a mark' },
]
const of = ref<About>(about ?? 'horse')
const caption = ref('')
const agreedOn = ref(me.value?.today ?? '')
const shown = computed(() => data.value?.list.filter((p) => !about || p.about === about) ?? [])
const wrong = computed(() => sending.trouble.value?.fields.picture ?? sending.trouble.value?.message)

async function add(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file || !data.value) return
  const most = data.value.most_mib
  const now = await sending.send(async () => {
    const picture = await shrink(file)
    if (picture.size > most * 1024 * 1024)
      throw new Trouble(413, `This picture has ${Math.ceil(picture.size / 1024 / 1024)} MB. Send one of ${most} MB or less.`)
    return told(
      api.POST('/api/horses/{id}/photographs', {
        params: { path: { id: horse }, query: { about: of.value, caption: caption.value } },
        body: picture as unknown as string,
        bodySerializer: (body) => body,
        headers: { 'Content-Type': picture.type || 'application/octet-stream' },
      }),
    )
  })
  input.value = ''
  if (!now) return
  data.value = now
  caption.value = ''
}

async function remove(id: string) {
  const now = await sending.send(() => told(api.DELETE('/api/photographs/{id}', { params: { path: { id } } })))
  if (now) data.value = now
}

async function agree(person: string, ends = false) {
  const on = ends ? (me.value?.today ?? '') : agreedOn.value
  const body = { kind: 'photographs' as const, on, ends }
  const done = await sending.send(() => told(api.POST('/api/people/{id}/consents', { params: { path: { id: person } }, body })))
  if (done) await load()
}
</script>

<template>
  <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
    <div v-if="data" class="stack">
      <ul v-if="shown.length" class="strip">
        <li v-for="p in shown" :key="p.id">
          <a :href="`/api/photographs/${p.id}`" target="_blank" rel="noopener">
            <img
              :src="`/api/photographs/${p.id}`"
              :alt="p.caption || `Photograph of ${p.about === 'mark' ? 'a mark' : p.about}`"
              :width="p.width"
              :height="p.height"
              loading="lazy"
            />
          </a>
          <p>{{ p.caption || p.about }}</p>
          <p class="quiet small">{{ shortDate(p.taken_on) }}, {{ p.added_by }}</p>
          <button type="button" class="out no-print" @click="remove(p.id)">Take out</button>
        </li>
      </ul>
      <p v-else class="quiet">No photographs yet.</p>
      <div v-if="data.agreed" class="row no-print adding">
        <ChipRow v-if="!about" label="A photograph of" :choices="kinds" :chosen="[of]" @toggle="of = $event" />
        <FieldRow v-slot="f" label="What it shows"><ElInput :id="f.id" v-model="caption" maxlength="200" /></FieldRow>
        <label class="button plain file">
          {{ sending.sending.value ? 'Sending' : 'Add a photograph' }}
          <input type="file" accept="image/*" class="visually-hidden" @change="add" />
        </label>
      </div>
      <div v-else class="stack no-print">
        <p>Photographs need the owner's consent, with its day.</p>
        <div v-for="o in data.owners" :key="o.id" class="row adding">
          <FieldRow v-slot="f" :label="`${o.name} agreed on`"><ElInput :id="f.id" v-model="agreedOn" type="date" /></FieldRow>
          <ElButton @click="agree(o.id)">Note it</ElButton>
        </div>
      </div>
      <p v-for="o in data.owners.filter((o) => o.given_on)" :key="o.id" class="quiet small">
        {{ o.name }} agreed to photographs on {{ shortDate(o.given_on ?? '') }}.
        <button type="button" class="out no-print" @click="agree(o.id, true)">No longer</button>
      </p>
      <p v-if="data.room" class="small" role="status">{{ data.room }}</p>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    </div>
  </PageState>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: var(--gap-3);
}
img {
  width: 100%;
  height: 120px;
  object-fit: cover;
  border: var(--line);
  border-radius: var(--radius);
  display: block;
  background: var(--ivory-2);
}
.adding {
  align-items: end;
}
.file {
  position: relative;
}
.file:focus-within {
  outline: var(--focus);
  outline-offset: 2px;
}
.out {
  border: 0;
  background: none;
  padding: var(--gap-1) 0;
  color: var(--slate);
  text-decoration: underline;
  cursor: pointer;
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
</style>
