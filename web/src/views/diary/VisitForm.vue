<script setup lang="ts">
// A visit, new or as it stands: which horse, which day, when, who, how long, what for.
// Moving it is changing its day here, as well as dragging it.
import { computed, reactive, ref, watch } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import { useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import TellList from './TellList.vue'
import { localDate, longDate } from '../../words'

type Visit = Schemas['Booked']

const { visit, on, horse, horses, people } = defineProps<{
  visit?: Visit
  on?: string
  horse?: string
  horses: Schemas['HorseRef'][]
  people: Schemas['HorseRef'][]
}>()
const emit = defineEmits<{ done: [gone?: Schemas['Cancelled']]; leave: [] }>()

const form = reactive({
  horse: visit?.horses[0]?.id ?? horse ?? '',
  on: visit?.on ?? on ?? '',
  at: visit?.at ?? '',
  minutes: visit?.minutes ?? 0,
  who: visit?.who ?? me.value?.id ?? '',
  aim: visit?.aim ?? '',
  agreed: visit?.agreed ?? true,
})
const proposed = ref<Schemas['OfHorse']>()
const version = ref(visit?.version ?? 0)
const reason = ref('')
const cancelling = ref(false)
const tell = ref<Schemas['Tell'][]>()
const sending = useSend()
const wrong = (field: string) => sending.trouble.value?.fields[field]
const more = computed(() => visit?.horses.slice(1) ?? [])
const theirs = computed(() => sending.trouble.value?.current as Visit | undefined)

// A horse that is chosen brings the day that is proposed for it, and why.
watch(
  () => form.horse,
  async (id) => {
    proposed.value = undefined
    if (!id || visit) return
    const { data } = await api.GET('/api/horses/{id}/visits', { params: { path: { id } } })
    if (!data || id !== form.horse) return
    proposed.value = data
    form.on ||= data.proposal.on ?? ''
    form.minutes = data.minutes
    form.aim ||= data.aim ?? ''
  },
  { immediate: true },
)

function body() {
  const ids = [form.horse, ...more.value.map((h) => h.id)].filter(Boolean)
  return {
    horses: ids,
    yard: visit?.yard,
    who: form.who,
    on: form.on,
    at: form.at.slice(0, 5),
    minutes: Number(form.minutes),
    aim: form.aim,
    agreed: form.agreed,
  }
}

async function keep() {
  const kept = await sending.send(() =>
    visit
      ? told(api.PUT('/api/visits/{id}', { params: { path: { id: visit.id } }, body: { ...body(), version: version.value } }))
      : told(api.POST('/api/visits', { body: body() })),
  )
  if (kept) emit('done')
}

async function ready() {
  if (!visit) return
  tell.value = await sending.send(() => told(api.GET('/api/visits/{id}/tell', { params: { path: { id: visit.id } } })))
}

async function cancel() {
  if (!visit) return
  const gone = await sending.send(() =>
    told(
      api.POST('/api/visits/{id}/cancel', {
        params: { path: { id: visit.id } },
        body: { reason: reason.value, version: version.value },
      }),
    ),
  )
  if (gone) emit('done', gone)
}

async function mine() {
  version.value = theirs.value?.version ?? version.value
  await keep()
}

const say = (v: Pick<Visit, 'on' | 'at' | 'agreed'>) =>
  `${longDate(v.on)}${v.at ? ` at ${v.at}` : ''}, ${v.agreed ? 'agreed' : 'in pencil'}`
const differences = computed(() =>
  theirs.value ? [{ name: 'The visit', mine: say({ ...form, at: form.at }), theirs: say(theirs.value) }] : [],
)
</script>

<template>
  <form class="visit sheet stack" novalidate @submit.prevent="keep">
    <h2>{{ visit ? `${visit.horses.map((h) => h.name).join(', ')}: the visit` : 'Put in a visit' }}</h2>
    <StaleNote v-if="theirs" :differences="differences" :by="theirs.who_name" @mine="mine" @theirs="emit('done')" />
    <div class="fields">
      <FieldRow v-if="!visit" v-slot="f" label="Horse" :wrong="wrong('horses')">
        <select :id="f.id" v-model="form.horse" class="plain-field" :aria-describedby="f.describedby">
          <option value="">choose</option>
          <option v-for="h in horses" :key="h.id" :value="h.id">{{ h.name }}</option>
        </select>
      </FieldRow>
      <FieldRow v-slot="f" :label="visit ? 'Move to' : 'Day'" :wrong="wrong('on')">
        <ElInput :id="f.id" v-model="form.on" type="date" :aria-describedby="f.describedby" autofocus />
      </FieldRow>
      <FieldRow v-slot="f" label="Time" hint="empty: it fits in where it is on the way" :wrong="wrong('at')">
        <ElInput :id="f.id" v-model="form.at" type="time" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Minutes" :wrong="wrong('minutes')">
        <ElInput :id="f.id" v-model="form.minutes" type="number" min="5" max="600" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Who goes" :wrong="wrong('who')">
        <select :id="f.id" v-model="form.who" class="plain-field" :aria-describedby="f.describedby">
          <option v-for="p in people" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
      </FieldRow>
      <FieldRow v-slot="f" label="What for" class="wide" :wrong="wrong('aim')">
        <ElInput :id="f.id" v-model="form.aim" maxlength="300" :aria-describedby="f.describedby" />
      </FieldRow>
    </div>
    <div v-if="proposed" class="why">
      <p v-if="proposed.proposal.on">
        Proposed: <b>{{ longDate(proposed.proposal.on) }}</b>
        <ElButton v-if="form.on !== proposed.proposal.on" link @click="form.on = proposed.proposal.on">take it</ElButton>
      </p>
      <ul class="dots">
        <li v-for="r in proposed.proposal.reasons" :key="r.key">{{ r.text }}</li>
      </ul>
      <p v-for="v in proposed.visits.filter((x) => !x.cancelled)" :key="v.id" class="quiet">
        In the diary already: {{ longDate(v.on) }}{{ v.at ? ` at ${v.at}` : '' }}.
      </p>
    </div>
    <ElCheckbox v-model="form.agreed">Agreed, in ink</ElCheckbox>
    <WrongNote
      v-if="!theirs"
      :trouble="sending.trouble.value"
      :shown="['horses', 'on', 'at', 'minutes', 'who', 'aim', 'reason']"
    />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="sending.sending.value">{{
        visit?.cancelled ? 'Put it back in' : visit ? 'Keep it so' : 'Keep it'
      }}</ElButton>
      <ElButton @click="emit('leave')">Leave it</ElButton>
      <RouterLink v-if="visit?.horses[0]" :to="`/horses/${visit.horses[0].id}`">To {{ visit.horses[0].name }}</RouterLink>
      <ElButton v-if="visit && !visit.cancelled && !tell" link @click="ready">Tell the owner</ElButton>
      <ElButton v-if="visit && !visit.cancelled && !cancelling" link @click="cancelling = true">Cancel the visit</ElButton>
    </div>
    <TellList v-if="visit && tell" :visit="visit.id" :tell="tell" />
    <div v-if="cancelling" class="stack">
      <FieldRow v-slot="f" label="Why it is cancelled" hint="The owner reads it" :wrong="wrong('reason')">
        <ElInput :id="f.id" v-model="reason" maxlength="300" :aria-describedby="f.describedby" />
      </FieldRow>
      <div class="row">
        <ElButton :loading="sending.sending.value" @click="cancel">Cancel it</ElButton>
        <p v-if="visit && visit.on < localDate(Date.now())" class="quiet">It lies in the past.</p>
      </div>
    </div>
  </form>
</template>

<style scoped>
.visit {
  border-bottom: var(--rule);
  margin-bottom: var(--gap-3);
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: var(--gap-3);
}
.wide {
  grid-column: span 2;
}
.why {
  border-left: var(--rule);
  padding-left: var(--gap-3);
}
</style>
