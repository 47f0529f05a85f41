<script setup lang="ts">
// Dangerous things that happened: a tap for what, and the day.
import { v7 } from 'uuid'
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import type { Assessing } from '../../cases/useAssessment'
import WalkField from './WalkField.vue'

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
      <WalkField label="On or about" :walk="walk" :path="`events/${id}/on`" kind="date" />
      <ElButton @click="walk.mark(`events/${id}`, null)">Take it out</ElButton>
    </div>
  </div>
</template>

<style scoped>
.event {
  align-items: end;
}
</style>
