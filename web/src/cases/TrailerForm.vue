<script setup lang="ts">
// What a horse meets in a trailer. What nobody looked at stays empty.
import { computed, reactive, ref } from 'vue'
import { api, told } from '../api/client'
import type { Schemas } from '../api/types'
import { useLoad, useSend } from '../api/use'
import ChipRow from '../parts/ChipRow.vue'
import { choices } from '../parts/choices'
import { differences } from '../parts/differences'
import FieldRow from '../parts/FieldRow.vue'
import NumberField from '../parts/NumberField.vue'
import { width } from '../lengths'
import StaleNote from '../parts/StaleNote.vue'
import WrongNote from '../parts/WrongNote.vue'

type Trailer = Schemas['Trailer']
type Record = Schemas['TrailerRecord']

const { trailer } = defineProps<{ trailer?: Trailer }>()
const emit = defineEmits<{ done: [trailer: Trailer]; leave: [] }>()

/** Where it can stand, and whose it can be. */
const { data: places } = useLoad(async () => {
  const [yards, people] = await Promise.all([told(api.GET('/api/yards')), told(api.GET('/api/people'))])
  return { yards, owners: people.filter((p) => ['owner', 'yard', 'rescue'].includes(p.kind)) }
})
const text = reactive({ name: trailer?.name ?? '', yard_id: trailer?.yard_id ?? '', person_id: trailer?.person_id ?? '' })
const record = ref<Record>({ ...trailer?.record })
const version = ref(trailer?.version ?? 1)
const { sending, trouble, send } = useSend()
const theirs = computed(() => trouble.value?.current as Trailer | undefined)
const differing = computed(() => {
  const plain = (t: typeof text | Trailer, r: Record) => ({ name: t.name, yard: t.yard_id ?? '', owner: t.person_id ?? '', ...r })
  return theirs.value ? differences(plain(text, record.value), plain(theirs.value, theirs.value.record)) : []
})

const yesNo = ['yes', 'no'] as const
const rows = [
  { field: 'load', label: 'Load', words: ['straight load', 'angle load'] },
  { field: 'way', label: 'Way in', words: ['ramp', 'step-up'] },
  { field: 'divider', label: 'A divider', words: yesNo },
  { field: 'bar', label: 'A bar behind', words: yesNo },
  { field: 'light', label: 'Inside', words: ['light', 'dim', 'dark'] },
  { field: 'floor', label: 'The floor sounds', words: ['quiet', 'hollow'] },
  { field: 'give', label: 'The floor is', words: ['firm', 'springs'] },
  { field: 'hitch', label: 'It stands', words: ['hitched', 'free'] },
  { field: 'untied_from_outside', label: 'Untied from outside', words: yesNo },
] as const

function set<K extends keyof Record>(field: K, value: Record[K]) {
  record.value = { ...record.value, [field]: record.value[field] === value ? undefined : value }
}
const put = <K extends keyof Record>(field: K, value: Record[K]) => (record.value = { ...record.value, [field]: value })

async function save() {
  const body = {
    name: text.name,
    yard_id: text.yard_id || undefined,
    person_id: text.person_id || undefined,
    record: record.value,
  }
  const kept = await send(() =>
    trailer
      ? told(api.PUT('/api/trailers/{id}', { params: { path: { id: trailer.id } }, body: { ...body, version: version.value } }))
      : told(api.POST('/api/trailers', { body })),
  )
  if (kept) emit('done', kept)
}
async function mine() {
  version.value = theirs.value?.version ?? version.value
  await save()
}
function take() {
  if (theirs.value) emit('done', theirs.value)
}
</script>

<template>
  <form class="sheet stack" novalidate @submit.prevent="save">
    <h3>{{ trailer ? trailer.name : 'A new trailer' }}</h3>
    <div class="grid">
      <FieldRow v-slot="f" label="What it is called" :wrong="trouble?.fields.name">
        <ElInput :id="f.id" v-model="text.name" maxlength="60" :aria-describedby="f.describedby" />
      </FieldRow>
      <FieldRow v-slot="f" label="Stands at" :wrong="trouble?.fields.yard_id">
        <ElSelect :id="f.id" v-model="text.yard_id" clearable placeholder="no yard">
          <ElOption v-for="y in places?.yards" :key="y.id" :value="y.id" :label="y.name" />
        </ElSelect>
      </FieldRow>
      <FieldRow v-slot="f" label="Belongs to" :wrong="trouble?.fields.person_id">
        <ElSelect :id="f.id" v-model="text.person_id" clearable filterable placeholder="no owner">
          <ElOption v-for="o in places?.owners" :key="o.id" :value="o.id" :label="o.name" />
        </ElSelect>
      </FieldRow>
      <FieldRow v-for="r in rows" :key="r.field" :label="r.label">
        <ChipRow
          :label="r.label"
          :choices="choices(r.words)"
          :chosen="[record[r.field] ?? '']"
          @toggle="set(r.field, $event as Record[typeof r.field])"
        />
      </FieldRow>
      <FieldRow v-slot="f" :label="`Width for one horse, ${width.unit()}`" :wrong="trouble?.fields['record.width_mm']">
        <NumberField
          :id="f.id"
          :model-value="record.width_mm ? width.typed(record.width_mm) : undefined"
          @update:model-value="put('width_mm', $event === undefined ? undefined : width.kept($event))"
        />
      </FieldRow>
      <FieldRow v-slot="f" label="Tie rings" :wrong="trouble?.fields['record.rings']">
        <NumberField :id="f.id" :model-value="record.rings" @update:model-value="put('rings', $event)" />
      </FieldRow>
      <FieldRow v-slot="f" label="Where the rings are" :wrong="trouble?.fields['record.rings_at']">
        <ElInput
          :id="f.id"
          :model-value="record.rings_at ?? ''"
          maxlength="120"
          @update:model-value="put('rings_at', $event || undefined)"
        />
      </FieldRow>
    </div>
    <StaleNote v-if="theirs" :differences="differing" @mine="mine" @theirs="take" />
    <WrongNote v-else :trouble="trouble" :shown="Object.keys(trouble?.fields ?? {})" />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="sending">Keep the trailer</ElButton>
      <ElButton @click="emit('leave')">Leave it</ElButton>
    </div>
  </form>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(210px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
