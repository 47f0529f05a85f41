<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useLoad, useSend } from '../../api/use'
import { differences } from '../../parts/differences'
import FieldRow from '../../parts/FieldRow.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'
import CaseForm from './CaseForm.vue'
import HandlerList from './HandlerList.vue'
import ThingList from './ThingList.vue'
import { useHorseFile } from '../../cases/file'
import RecordFields from '../../cases/RecordFields.vue'

const { file, reload } = useHorseFile()
const { data: yards } = useLoad(() => told(api.GET('/api/yards')))
const saving = useSend()

const name = ref(file.value?.name ?? '')
const yardId = ref(file.value?.yard_id ?? '')
const record = shallowRef<Schemas['AssessRecord']>({ ...file.value?.record })
const version = ref(file.value?.version ?? 1)
const saved = ref(false)

const theirs = computed(() => saving.trouble.value?.current as Schemas['Horse'] | undefined)
const differing = computed(() => {
  const t = theirs.value
  if (!t) return []
  return differences({ name: name.value, record: record.value }, { name: t.name, record: t.record })
})
/** Things that were told of, and not worked with since. */
const toldOf = computed(() =>
  (file.value?.record.things ?? []).filter((name) =>
    file.value?.things.every((t) => t.name.toLowerCase() !== name.toLowerCase()),
  ),
)
const wrong = (field: string) => saving.trouble.value?.fields[field]

async function save() {
  saved.value = false
  const horse = await saving.send(() =>
    told(
      api.PUT('/api/horses/{id}', {
        params: { path: { id: file.value?.id ?? '' } },
        body: { name: name.value, yard_id: yardId.value || undefined, record: record.value, version: version.value },
      }),
    ),
  )
  if (!horse) return
  version.value = horse.version
  saved.value = true
  await reload()
}

async function mine() {
  if (theirs.value) version.value = theirs.value.version
  await save()
}

function take() {
  const t = theirs.value
  if (!t) return
  name.value = t.name
  yardId.value = t.yard_id ?? ''
  record.value = t.record
  version.value = t.version
  saving.trouble.value = undefined
}
</script>

<template>
  <div class="stack form">
    <form class="sheet stack" novalidate @submit.prevent="save">
      <h2>The horse's record</h2>
      <FieldRow v-slot="f" label="Name" :wrong="wrong('name')">
        <ElInput :id="f.id" v-model="name" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Yard" :wrong="wrong('yard_id')">
        <ElSelect :id="f.id" v-model="yardId" filterable clearable placeholder="Choose a yard">
          <ElOption v-for="y in yards" :key="y.id" :value="y.id" :label="y.name" />
        </ElSelect>
      </FieldRow>
      <RecordFields v-model="record" :wrong="(f) => wrong(`record.${f}`)" />
      <StaleNote v-if="theirs" :differences="differing" @mine="mine" @theirs="take" />
      <WrongNote
        v-else
        :trouble="saving.trouble.value"
        :shown="['name', 'yard_id', ...Object.keys(saving.trouble.value?.fields ?? {}).filter((k) => k.startsWith('record.'))]"
      />
      <div class="row">
        <ElButton type="primary" native-type="submit" :loading="saving.sending.value">Save the record</ElButton>
        <p v-if="saved" role="status">Saved.</p>
      </div>
    </form>
    <HandlerList v-if="file" :horse="file" @changed="reload" />
    <ThingList v-if="file && (file.things.length || file.record.things?.length)" :things="file.things" :told="toldOf" />
    <CaseForm v-if="file" :kase="file.case" @saved="reload" />
  </div>
</template>

<style scoped>
.form {
  max-width: 900px;
}
</style>
