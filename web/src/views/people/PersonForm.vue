<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import { api, told } from '../../api/client'
import { isLead } from '../../api/me'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import { differences } from '../../parts/differences'
import FieldRow from '../../parts/FieldRow.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'

type Person = Schemas['Person']

const { person } = defineProps<{ person?: Person }>()
const emit = defineEmits<{ done: []; leave: [] }>()

const kinds = choices(['owner', 'yard', 'rescue', 'vet', 'dentist', 'farrier', 'other'] as const)
const form = reactive({
  kind: (person?.kind ?? 'owner') as Schemas['PersonText']['kind'],
  name: person?.name ?? '',
  phone: person?.phone ?? '',
  email: person?.email ?? '',
  note: person?.note ?? '',
  version: person?.version ?? 1,
})
const { sending, trouble, send } = useSend()
const theirs = computed(() => trouble.value?.current as Person | undefined)
const differing = computed(() => {
  const plain = (p: typeof form | Person) => ({ kind: p.kind, name: p.name, phone: p.phone, email: p.email, note: p.note })
  return theirs.value ? differences(plain(form), plain(theirs.value)) : []
})

async function save() {
  const { version, ...text } = form
  const kept = await send(() =>
    person
      ? told(api.PUT('/api/people/{id}', { params: { path: { id: person.id } }, body: { ...text, version } }))
      : told(api.POST('/api/people', { body: text })),
  )
  if (kept) emit('done')
}

const erasing = ref(false)
const erased = ref('')
async function erase() {
  if (!person) return
  const said = await send(() => told(api.POST('/api/people/{id}/erase', { params: { path: { id: person.id } } })))
  if (!said) return
  erasing.value = false
  erased.value = said.say
}

async function mine() {
  form.version = theirs.value?.version ?? form.version
  await save()
}
</script>

<template>
  <form class="sheet stack form" novalidate @submit.prevent="save">
    <h2>{{ person ? person.name : 'A new person' }}</h2>
    <FieldRow label="Who is it" :wrong="trouble?.fields.kind">
      <ChipRow label="Who is it" :choices="kinds" :chosen="[form.kind]" @toggle="form.kind = $event as typeof form.kind" />
    </FieldRow>
    <FieldRow v-slot="f" label="Name" :wrong="trouble?.fields.name">
      <ElInput :id="f.id" v-model="form.name" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Phone" :wrong="trouble?.fields.phone">
      <ElInput :id="f.id" v-model="form.phone" type="tel" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Email" :wrong="trouble?.fields.email">
      <ElInput :id="f.id" v-model="form.email" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Note" :wrong="trouble?.fields.note">
      <ElInput :id="f.id" v-model="form.note" type="textarea" :rows="2" :aria-describedby="f.describedby" />
    </FieldRow>
    <StaleNote v-if="theirs" :differences="differing" @mine="mine" @theirs="emit('done')" />
    <WrongNote v-else :trouble="trouble" :shown="['kind', 'name', 'phone', 'email', 'note']" />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="sending">Save</ElButton>
      <ElButton @click="emit('leave')">Leave it</ElButton>
      <ElButton v-if="person && isLead && !erasing" link @click="erasing = true">Erase this person</ElButton>
    </div>
    <div v-if="erasing && person" class="stack erase" role="alert">
      <p>
        Name, number, address, notes, agreements, links and films of {{ person.name }} go for good. What the horses did stays,
        without a name. If they ask what is kept of them, <RouterLink to="/house?see=out">take that out</RouterLink> first.
      </p>
      <div class="row">
        <ElButton type="danger" :loading="sending" @click="erase">Erase {{ person.name }}</ElButton>
        <ElButton @click="erasing = false">Keep</ElButton>
      </div>
    </div>
    <p v-if="erased" role="status">{{ erased }} <ElButton size="small" @click="emit('done')">Go on</ElButton></p>
  </form>
</template>

<style scoped>
.erase {
  border-left: 3px solid var(--rust);
  padding-left: var(--gap-3);
}
.form {
  max-width: 620px;
  margin-bottom: var(--gap-3);
}
</style>
