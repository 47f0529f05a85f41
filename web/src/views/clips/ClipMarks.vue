<script setup lang="ts">
// Moments of a clip with a word.
import { computed, nextTick, reactive, useTemplateRef, watch } from 'vue'
import { api, told } from '../../api/client'
import type { Schemas } from '../../api/types'
import { useSend } from '../../api/use'
import FieldRow from '../../parts/FieldRow.vue'
import WrongNote from '../../parts/WrongNote.vue'
import { shortDate, sideWord } from '../../words'

type Whole = Schemas['ClipWhole']

const { clip, at, open } = defineProps<{ clip: Whole; at: number; open: boolean }>()
const emit = defineEmits<{ changed: [clip: Whole]; seek: [at: number]; closed: [] }>()
const sending = useSend()
const form = reactive({ says: '', side: '' as '' | 'near' | 'off', at: 0, finding: '', step: '' })
const word = useTemplateRef<{ focus(): void }>('word')

/** Findings by the section of the walk where they belong. */
const sections = computed(() => {
  const all = clip.shows?.findings ?? []
  return [...new Set(all.map((f) => f.section))].map((section) => ({ section, list: all.filter((f) => f.section === section) }))
})
const titles: Record<string, string> = {
  A: 'What is done',
  C: 'First look',
  D: 'Basics',
  E: 'The problem',
  F: 'Mind',
  G: 'Place',
}
const ties = (m: Schemas['ClipMark']) =>
  [
    m.finding && `finding, seen on video${m.finding_says === m.says ? '' : `: ${m.finding_says}`}`,
    m.step_name && `step ${m.step_name}`,
  ]
    .filter(Boolean)
    .join(' · ')
const goes = computed(() => {
  const into = clip.shows?.into
  if (!into) return ''
  const stands = form.finding && into.found[form.finding]
  if (stands)
    return stands === 'told' ? 'The owner told of it. Now it stands as seen on video.' : 'It stands in the assessment already.'
  return into.on
    ? `A finding goes into the assessment of ${shortDate(into.on)}, as seen on video.`
    : 'A finding begins an assessment of today, as seen on video.'
})

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
  const body = {
    at: form.at,
    says: form.says,
    side: form.side || undefined,
    finding: form.finding || undefined,
    step: form.step || undefined,
  }
  const now = await sending.send(() => told(api.POST('/api/clips/{id}/marks', { params: { path: { id: clip.id } }, body })))
  if (!now) return
  Object.assign(form, { says: '', side: '', finding: '', step: '' })
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
          >{{ m.says }}{{ m.side ? `, ${sideWord(m.side)}` : '' }}
          <span v-if="ties(m)" class="small">{{ ties(m) }}</span>
          <span class="quiet small who">{{ m.made_by }}</span></span
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
          :placeholder="form.finding ? 'a word more, if you like' : 'what is seen'"
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
      <template v-if="clip.shows">
        <FieldRow v-slot="f" label="Finding" :wrong="sending.trouble.value?.fields['finding']">
          <select :id="f.id" v-model="form.finding" class="plain-field" :aria-describedby="f.describedby">
            <option value="">none of the list</option>
            <optgroup v-for="s in sections" :key="s.section" :label="titles[s.section] ?? s.section">
              <option v-for="o in s.list" :key="o.key" :value="o.key">{{ o.says }}</option>
            </optgroup>
          </select>
        </FieldRow>
        <FieldRow v-slot="f" label="Step" :wrong="sending.trouble.value?.fields['step']">
          <select :id="f.id" v-model="form.step" class="plain-field" :aria-describedby="f.describedby">
            <option value="">none</option>
            <option v-for="o in clip.shows.steps" :key="o.key" :value="o.key">{{ o.name }}</option>
          </select>
        </FieldRow>
      </template>
      <ElButton type="primary" native-type="submit" :loading="sending.sending.value">Mark it</ElButton>
      <ElButton @click="emit('closed')">Leave it</ElButton>
    </form>
    <p v-if="open && goes" class="quiet small">{{ goes }}</p>
    <WrongNote :trouble="sending.trouble.value" :shown="['says', 'finding', 'step']" />
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
.who {
  margin-left: var(--gap-2);
}
.end {
  align-items: flex-end;
}
select {
  max-width: min(34ch, 100%);
}
</style>
