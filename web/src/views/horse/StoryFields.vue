<script setup lang="ts">
// Section A: the owner's story.
import type { Schemas } from '../../api/client'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import NumberField from '../../parts/NumberField.vue'

type Story = Schemas['AssessStory']

const { story, wrong } = defineProps<{ story: Story; wrong: (field: string) => string | undefined }>()
const emit = defineEmits<{ change: [story: Story] }>()

const began = choices([
  'always',
  'gradually',
  'suddenly',
  'after an event',
  'after a change of tack or rider',
  'after time off',
] as const)
const done = choices([
  'put away',
  'given a rest',
  'the person gives up',
  'got free by itself',
  'kept at it',
  'called somebody',
] as const)
const handlers = choices(['beginner', 'improving', 'sound', 'professional'] as const)

const put = <K extends keyof Story>(field: K, value: Story[K]) => emit('change', { ...story, [field]: value })
const set = <K extends keyof Story>(field: K, value: Story[K]) => put(field, story[field] === value ? undefined : value)
function toggle(what: NonNullable<Story['done']>[number]) {
  const now = story.done ?? []
  put('done', now.includes(what) ? now.filter((d) => d !== what) : [...now, what])
}
const text = (v: string) => v || undefined
</script>

<template>
  <section class="sheet stack">
    <h2>A. The owner's story</h2>
    <FieldRow v-slot="f" label="What happens" :wrong="wrong('description')">
      <ElInput
        :id="f.id"
        :model-value="story.description ?? ''"
        type="textarea"
        :rows="2"
        @update:model-value="put('description', text($event))"
      />
    </FieldRow>
    <FieldRow label="How it began">
      <ChipRow
        label="How it began"
        :choices="began"
        :chosen="[story.began ?? '']"
        @toggle="set('began', $event as Story['began'])"
      />
    </FieldRow>
    <div class="grid">
      <FieldRow v-slot="f" label="Since" :wrong="wrong('since')">
        <ElInput :id="f.id" :model-value="story.since ?? ''" type="date" @update:model-value="put('since', text($event))" />
      </FieldRow>
      <FieldRow v-slot="f" label="Tries so far" :wrong="wrong('tries')">
        <NumberField :id="f.id" :model-value="story.tries" @update:model-value="put('tries', $event)" />
      </FieldRow>
      <FieldRow v-slot="f" label="Went well" :wrong="wrong('successes')">
        <NumberField :id="f.id" :model-value="story.successes" @update:model-value="put('successes', $event)" />
      </FieldRow>
      <FieldRow v-slot="f" label="Usual time, minutes" :wrong="wrong('usual_minutes')">
        <NumberField :id="f.id" :model-value="story.usual_minutes" @update:model-value="put('usual_minutes', $event)" />
      </FieldRow>
      <FieldRow v-slot="f" label="Worst time, minutes" :wrong="wrong('worst_minutes')">
        <NumberField :id="f.id" :model-value="story.worst_minutes" @update:model-value="put('worst_minutes', $event)" />
      </FieldRow>
      <FieldRow v-slot="f" label="Helpers it takes" :wrong="wrong('helpers')">
        <NumberField :id="f.id" :model-value="story.helpers" @update:model-value="put('helpers', $event)" />
      </FieldRow>
      <FieldRow v-slot="f" label="With whom" :wrong="wrong('with_whom')">
        <ElInput :id="f.id" :model-value="story.with_whom ?? ''" @update:model-value="put('with_whom', text($event))" />
      </FieldRow>
      <FieldRow v-slot="f" label="Where" :wrong="wrong('where')">
        <ElInput :id="f.id" :model-value="story.where ?? ''" @update:model-value="put('where', text($event))" />
      </FieldRow>
      <FieldRow v-slot="f" label="Who must do it alone" :wrong="wrong('who_alone')">
        <ElInput :id="f.id" :model-value="story.who_alone ?? ''" @update:model-value="put('who_alone', text($event))" />
      </FieldRow>
    </div>
    <FieldRow label="What is done when it happens">
      <ChipRow
        label="What is done when it happens"
        :choices="done"
        :chosen="story.done ?? []"
        @toggle="toggle($event as NonNullable<Story['done']>[number])"
      />
    </FieldRow>
    <FieldRow v-slot="f" label="What has been tried" :wrong="wrong('tried')">
      <ElInput :id="f.id" :model-value="story.tried ?? ''" @update:model-value="put('tried', text($event))" />
    </FieldRow>
    <FieldRow label="The main handler is">
      <ChipRow
        label="The main handler is"
        :choices="handlers"
        :chosen="[story.handler_is ?? '']"
        @toggle="set('handler_is', $event as Story['handler_is'])"
      />
    </FieldRow>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(170px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
