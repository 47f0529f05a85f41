<script setup lang="ts">
// Moments of a clip with a word.
import { nextTick, reactive, useTemplateRef, watch } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { sideWord } from '../../words'

type Whole = Schemas['ClipWhole']

const { clip, at, open } = defineProps<{ clip: Whole; at: number; open: boolean }>()
const emit = defineEmits<{ changed: [clip: Whole]; seek: [at: number]; closed: [] }>()
const sending = useSend()
const form = reactive({ says: '', side: '' as '' | 'near' | 'off', at: 0 })
const word = useTemplateRef<{ focus(): void }>('word')

watch(
  () => open,
  async (now) => {
    if (!now) return
    form.at = at
    await nextTick()
    word.value?.focus()
  },
)
async function keep() {
  const body = { at: form.at, says: form.says, side: form.side || undefined }
  const now = await sending.send(() => told(api.POST('/api/clips/{id}/marks', { params: { path: { id: clip.id } }, body })))
  if (!now) return
  Object.assign(form, { says: '', side: '' })
  emit('changed', now)
  emit('closed')
}
async function off(mark: string) {
  const now = await sending.send(() =>
    told(api.DELETE('/api/clips/{id}/marks/{mark}', { params: { path: { id: clip.id, mark } } })),
  )
  if (now) emit('changed', now)
}
</script>

<template>
  <section class="sheet stack" aria-label="Marks">
    <h2>Marks</h2>
    <p v-if="clip.marks.length === 0 && !open" class="quiet">None yet. Stop where something is seen, and press <kbd>m</kbd>.</p>
    <ul>
      <li v-for="m in clip.marks" :key="m.id" class="row between line">
        <button type="button" class="as-link" @click="emit('seek', m.at)">{{ m.at.toFixed(2) }} s</button>
        <span class="grow"
          >{{ m.says }}{{ m.side ? `, ${sideWord(m.side)}` : '' }} <span class="quiet small">{{ m.made_by }}</span></span
        >
        <ElButton link @click="off(m.id)"
          >take off<span class="visually-hidden"> {{ m.says }}</span></ElButton
        >
      </li>
    </ul>
    <form v-if="open" class="row end" novalidate @submit.prevent="keep" @keydown.esc="emit('closed')">
      <FieldRow v-slot="f" :label="`At ${form.at.toFixed(2)} s`" :wrong="sending.trouble.value?.fields['says']">
        <ElInput
          :id="f.id"
          ref="word"
          v-model="form.says"
          maxlength="200"
          placeholder="what is seen"
          :aria-describedby="f.describedby"
        />
      </FieldRow>
      <FieldRow v-slot="f" label="Side">
        <select :id="f.id" v-model="form.side" class="plain-field">
          <option value="">either</option>
          <option value="near">{{ sideWord('near') }}</option>
          <option value="off">{{ sideWord('off') }}</option>
        </select>
      </FieldRow>
      <ElButton type="primary" native-type="submit" :loading="sending.sending.value">Mark it</ElButton>
      <ElButton @click="emit('closed')">Leave it</ElButton>
    </form>
    <WrongNote :trouble="sending.trouble.value" :shown="['says']" />
  </section>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
.grow {
  flex: 1;
}
.end {
  align-items: flex-end;
}
</style>
