<script setup lang="ts">
// Dangerous things of the last 12 months: those logged in sessions, and those that
// are written down after the fact.
import { reactive, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { isHelper } from '../../api/me'
import { useLoad, useSend } from '../../api/use'
import { useHorseFile } from '../../cases/file'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import PageState from '../../parts/PageState.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { longDate, shortDate } from '../../words'

type Incident = Schemas['AssessIncident']

const { horse } = defineProps<{ horse: string }>()
const { reload } = useHorseFile()
const params = { path: { id: horse } }
const { data, trouble, load } = useLoad(() => told(api.GET('/api/horses/{id}/incidents', { params })))
const photos = useLoad(() =>
  isHelper.value ? Promise.resolve(undefined) : told(api.GET('/api/horses/{id}/photographs', { params })),
)
const open = ref(false)
const empty: Incident = { kind: '', on: '', hurt: '', who: '', what: '', did: '', photograph: '' }
const form = reactive<Incident>({ ...empty })
const sending = useSend()
const wrong = (field: string) => sending.trouble.value?.fields[field]

function begin() {
  Object.assign(form, empty, { on: data.value?.today })
  open.value = true
}

async function keep() {
  const now = await sending.send(() => told(api.POST('/api/horses/{id}/incidents', { params, body: { ...form } })))
  if (!now) return
  data.value = now
  open.value = false
  await reload()
}
</script>

<template>
  <section class="sheet stack">
    <div class="row between">
      <h2>Dangerous moments of the last 12 months</h2>
      <ElButton v-if="!open" @click="begin">Write one down</ElButton>
    </div>
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <form v-if="open && data" class="stack" novalidate @submit.prevent="keep">
        <p class="strong">
          First make it safe, and see to whoever is hurt. What is written here raises the grade of care at once.
        </p>
        <FieldRow label="What the horse did" :wrong="wrong('kind')">
          <ChipRow
            label="What the horse did"
            :choices="data.kinds.map((k) => ({ value: k, text: k }))"
            :chosen="[form.kind]"
            @toggle="form.kind = $event as Incident['kind']"
          />
        </FieldRow>
        <FieldRow label="Hurt" :wrong="wrong('hurt')">
          <ChipRow
            label="Hurt"
            :choices="data.hurts.map((k) => ({ value: k, text: k }))"
            :chosen="[form.hurt]"
            @toggle="form.hurt = $event as Incident['hurt']"
          />
        </FieldRow>
        <FieldRow v-slot="f" label="Day" :wrong="wrong('on')">
          <ElInput :id="f.id" v-model="form.on" type="date" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="Who was there" :wrong="wrong('who')">
          <ElInput :id="f.id" v-model="form.who" maxlength="120" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="What happened" :wrong="wrong('what')">
          <ElInput :id="f.id" v-model="form.what" type="textarea" autosize maxlength="1000" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow v-slot="f" label="What was done" :wrong="wrong('did')">
          <ElInput :id="f.id" v-model="form.did" type="textarea" autosize maxlength="1000" :aria-describedby="f.describedby" />
        </FieldRow>
        <FieldRow
          v-if="photos.data.value?.list.length"
          v-slot="f"
          label="Photograph"
          hint="Of those under Record"
          :wrong="wrong('photograph')"
        >
          <select :id="f.id" v-model="form.photograph" class="plain-field">
            <option value="">none</option>
            <option v-for="p in photos.data.value.list" :key="p.id" :value="p.id">
              {{ shortDate(p.taken_on) }} {{ p.caption || p.about }}
            </option>
          </select>
        </FieldRow>
        <WrongNote :trouble="sending.trouble.value" :shown="['kind', 'on', 'hurt', 'who', 'what', 'did', 'photograph']" />
        <div class="row">
          <ElButton type="primary" native-type="submit" :loading="sending.sending.value">Keep it</ElButton>
          <ElButton @click="open = false">Leave it</ElButton>
        </div>
      </form>
      <p v-if="data?.list.length === 0" class="quiet">None was written down.</p>
      <ul>
        <li v-for="(i, n) in data?.list" :key="i.id ?? `${i.session}${n}`" class="line">
          <p>
            <b>{{ longDate(i.on) }}: {{ i.kind }}</b
            ><template v-if="i.hurt">, hurt: {{ i.hurt }}</template>
            <RouterLink v-if="i.session && !isHelper" :to="`/arena/${i.session}/after`">the session</RouterLink>
          </p>
          <p v-if="i.what">
            {{ i.what }}<template v-if="i.did"> Done: {{ i.did }}</template>
          </p>
          <p v-if="i.who || i.by" class="quiet">
            <template v-if="i.who">{{ i.who }} was there. </template><template v-if="i.by">Written down by {{ i.by }}.</template>
          </p>
          <img
            v-if="i.photograph && !isHelper"
            :src="`/api/photographs/${i.photograph}`"
            alt="Photograph of the incident"
            class="photo"
          />
        </li>
      </ul>
    </PageState>
  </section>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
.photo {
  max-width: 240px;
  display: block;
}
</style>
