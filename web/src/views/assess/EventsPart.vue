<script setup lang="ts">
// Dangerous things that happened: a tap for what, and the day.
import { v7 } from 'uuid'
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import TypedAnswer from '../../parts/TypedAnswer.vue'
import type { Assessing } from '../../cases/useAssessment'

const { walk } = defineProps<{ walk: Assessing }>()

type Event = Schemas['AssessEvent']
const events = computed(() => Object.entries((walk.typed('events') ?? {}) as Record<string, Partial<Event>>))

const add = (kind: string) => walk.mark(`events/${v7()}`, { kind, on: me.value?.today ?? '' })
</script>

<template>
  <div class="stack">
    <FieldRow label="Dangerous things that happened">
      <ChipRow
        label="Dangerous things that happened"
        :choices="choices(walk.data?.words.events ?? [])"
        :chosen="events.map(([, e]) => e.kind ?? '')"
        @toggle="add"
      />
    </FieldRow>
    <div v-for="[id, e] in events" :key="id" class="row event">
      <b>{{ e.kind }}</b>
      <FieldRow v-slot="f" label="On or about" :wrong="walk.wrong(`events/${id}/on`)">
        <TypedAnswer :id="f.id" kind="date" :value="walk.typed(`events/${id}/on`)" @put="walk.mark(`events/${id}/on`, $event)" />
      </FieldRow>
      <ElButton @click="walk.mark(`events/${id}`, null)">Take it out</ElButton>
    </div>
  </div>
</template>

<style scoped>
.event {
  align-items: end;
}
</style>
