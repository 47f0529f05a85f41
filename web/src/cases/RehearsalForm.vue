<script setup lang="ts">
// The rehearsal sheet: seven things, each yes, nearly or no; the level that was
// meant, and what the partner felt. Or the answers on an uncut clip.
import { ref } from 'vue'
import { api, told } from '../api/client'
import type { Schemas } from '../api/types'
import { useSend } from '../api/use'
import ChipRow from '../parts/ChipRow.vue'
import FieldRow from '../parts/FieldRow.vue'
import NumberField from '../parts/NumberField.vue'
import WrongNote from '../parts/WrongNote.vue'

const { caseId, person, step, words } = defineProps<{
  caseId: string
  person: string
  step: string
  words: Schemas['Clearances']
}>()
const emit = defineEmits<{ kept: [now: Schemas['Clearances']]; leave: [] }>()

const place = ref<string>('person')
const on = ref(words.today)
const items = ref<Record<string, string>>({})
const tries = ref<{ meant?: number; felt?: number }[]>([{}])
const answers = ref<string[]>([])
const note = ref('')
const sending = useSend()

const fainter = (t: { meant?: number; felt?: number }) => t.meant !== undefined && t.felt !== undefined && t.felt <= t.meant - 2

async function keep() {
  const clip = place.value === 'clip'
  const body = {
    person,
    step,
    on: on.value,
    place: place.value,
    note: note.value || undefined,
    ...(clip
      ? { answers: answers.value }
      : {
          items: items.value,
          tries: tries.value
            .filter((t) => t.meant !== undefined || t.felt !== undefined)
            .map((t) => ({ meant: t.meant ?? null, felt: t.felt ?? null })),
        }),
  } as Schemas['ClearanceRehearsal']
  const now = await sending.send(() => told(api.POST('/api/cases/{id}/rehearsals', { params: { path: { id: caseId } }, body })))
  if (now) emit('kept', now)
}
</script>

<template>
  <form class="stack form" @submit.prevent="keep">
    <ChipRow
      label="Where"
      :choices="
        words.places.map((p) => ({ value: String(p), text: p === 'person' ? 'on a person' : p === 'clip' ? 'an uncut clip' : p }))
      "
      :chosen="[place]"
      @toggle="(p) => (place = p)"
    />
    <p v-if="sending.trouble.value?.fields.place" class="wrong" role="alert">{{ sending.trouble.value.fields.place }}</p>
    <FieldRow v-slot="f" label="Day" :wrong="sending.trouble.value?.fields.on">
      <ElInput :id="f.id" v-model="on" type="date" :aria-describedby="f.describedby" />
    </FieldRow>
    <template v-if="place !== 'clip'">
      <div v-for="item in words.items" :key="item" class="item">
        <span>{{ item }}</span>
        <ChipRow
          :label="item"
          :choices="words.saids.map((s) => ({ value: String(s), text: s }))"
          :chosen="[items[item] ?? '']"
          @toggle="(s) => (items = { ...items, [item]: s })"
        />
      </div>
      <p v-if="sending.trouble.value?.fields.items" class="wrong" role="alert">{{ sending.trouble.value.fields.items }}</p>
      <div v-for="(t, i) in tries" :key="i" class="row">
        <FieldRow v-slot="f" :label="`Try ${i + 1}: level meant`"><NumberField :id="f.id" v-model="t.meant" /></FieldRow>
        <FieldRow v-slot="f" label="level felt"><NumberField :id="f.id" v-model="t.felt" /></FieldRow>
        <p v-if="fainter(t)" class="strong">Felt 2 or more less: the hand is lighter than it means to be.</p>
      </div>
      <div><ElButton link @click="tries = [...tries, {}]">Another try</ElButton></div>
    </template>
    <template v-else>
      <p>It shows person, rope and the whole horse, uncut. Tap the answers in their order.</p>
      <ChipRow
        label="Answers on the clip"
        :choices="words.answers.map((a) => ({ value: String(a), text: a }))"
        :chosen="[]"
        @toggle="(a) => (answers = [...answers, a])"
      />
      <p v-if="answers.length">
        {{ answers.join(', ') }} <ElButton link @click="answers = answers.slice(0, -1)">Take the last back</ElButton>
      </p>
      <p v-if="sending.trouble.value?.fields.answers" class="wrong" role="alert">{{ sending.trouble.value.fields.answers }}</p>
    </template>
    <FieldRow v-slot="f" label="Note"><ElInput :id="f.id" v-model="note" maxlength="500" /></FieldRow>
    <WrongNote :trouble="sending.trouble.value" :shown="['place', 'on', 'items', 'answers']" />
    <div class="row">
      <ElButton type="primary" native-type="submit" :loading="sending.sending.value">Keep the rehearsal</ElButton>
      <ElButton @click="emit('leave')">Leave it</ElButton>
    </div>
  </form>
</template>

<style scoped>
.form {
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  padding: var(--gap-3);
  margin-top: var(--gap-2);
}
.item {
  display: grid;
  gap: var(--gap-1);
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
</style>
