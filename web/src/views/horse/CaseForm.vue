<script setup lang="ts">
// The case: its goal, its date, and whether it is finished.
import { computed, reactive, ref } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import { differences } from '../../parts/differences'
import FieldRow from '../../parts/FieldRow.vue'
import StaleNote from '../../parts/StaleNote.vue'
import WrongNote from '../../parts/WrongNote.vue'

type Case = Schemas['Case']

const { kase } = defineProps<{ kase: Case }>()
const emit = defineEmits<{ saved: [] }>()

const form = reactive({
  goal: kase.goal,
  needed_by: kase.needed_by ?? '',
  thing: kase.thing ?? '',
  finished: !!kase.finished_on,
  version: kase.version,
})
const saving = useSend()
const saved = ref(false)

const theirs = computed(() => saving.trouble.value?.current as Case | undefined)
const differing = computed(() => {
  const t = theirs.value
  if (!t) return []
  const plain = { goal: form.goal, needed_by: form.needed_by, thing: form.thing, finished: form.finished }
  return differences(plain, { goal: t.goal, needed_by: t.needed_by, thing: t.thing ?? '', finished: !!t.finished_on })
})

async function save() {
  saved.value = false
  const body = { ...form, needed_by: form.needed_by || undefined }
  const now = await saving.send(() => told(api.PUT('/api/cases/{id}', { params: { path: { id: kase.id } }, body })))
  if (!now) return
  form.version = now.version
  saved.value = true
  emit('saved')
}

async function mine() {
  if (theirs.value) form.version = theirs.value.version
  await save()
}

function take() {
  const t = theirs.value
  if (!t) return
  Object.assign(form, {
    goal: t.goal,
    needed_by: t.needed_by ?? '',
    thing: t.thing ?? '',
    finished: !!t.finished_on,
    version: t.version,
  })
  saving.trouble.value = undefined
}
</script>

<template>
  <form class="sheet stack" novalidate @submit.prevent="save">
    <h2>The case</h2>
    <FieldRow v-slot="f" label="How will we know it's fixed?" :wrong="saving.trouble.value?.fields.goal">
      <ElInput :id="f.id" v-model="form.goal" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow v-slot="f" label="Needed by" :wrong="saving.trouble.value?.fields.needed_by">
      <ElInput :id="f.id" v-model="form.needed_by" type="date" class="date" :aria-describedby="f.describedby" />
    </FieldRow>
    <FieldRow
      v-if="kase.problem === 'new thing' || form.thing"
      v-slot="f"
      label="The new thing"
      :wrong="saving.trouble.value?.fields.thing"
    >
      <ElInput :id="f.id" v-model="form.thing" maxlength="60" :aria-describedby="f.describedby" />
    </FieldRow>
    <ElCheckbox v-model="form.finished">Finished: the goal is reached, or the work is ended</ElCheckbox>
    <StaleNote v-if="theirs" :differences="differing" @mine="mine" @theirs="take" />
    <WrongNote v-else :trouble="saving.trouble.value" :shown="['goal', 'needed_by', 'thing']" />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="saving.sending.value">Save the case</ElButton>
      <p v-if="saved" role="status">Saved.</p>
    </div>
  </form>
</template>

<style scoped>
.date {
  max-width: 220px;
}
</style>
