<script setup lang="ts">
// Dangerous things that happened, each with its day: they weigh on the risk.
import type { Schemas } from '../../api/client'
import { me } from '../../api/me'

type Event = Schemas['AssessEvent']

const { events, wrong } = defineProps<{ events: Event[]; wrong: (field: string) => string | undefined }>()
const emit = defineEmits<{ change: [events: Event[]] }>()

const kinds: Event['kind'][] = [
  'kicked at a person',
  'struck',
  'reared',
  'charged',
  'bucked someone off',
  'bolted',
  'fell with a rider',
  'ran over a person or broke loose',
  'went over backwards',
  'bit',
]

const on = (kind: Event['kind']) => events.find((e) => e.kind === kind)
const index = (kind: Event['kind']) => events.findIndex((e) => e.kind === kind)

function toggle(kind: Event['kind']) {
  emit('change', on(kind) ? events.filter((e) => e.kind !== kind) : [...events, { kind, on: me.value?.today ?? '' }])
}
function date(kind: Event['kind'], day: string) {
  emit(
    'change',
    events.map((e) => (e.kind === kind ? { ...e, on: day } : e)),
  )
}
</script>

<template>
  <section class="sheet stack">
    <h2>Dangerous things that happened</h2>
    <p class="quiet">Tap what happened, and give the day, near enough. Most of it counts for 90 days.</p>
    <ul class="events">
      <li v-for="k in kinds" :key="k" class="row">
        <button type="button" class="chip" :aria-pressed="!!on(k)" @click="toggle(k)">{{ k }}</button>
        <template v-if="on(k)">
          <ElInput
            :model-value="on(k)?.on"
            type="date"
            class="date"
            :aria-label="`Day: ${k}`"
            @update:model-value="date(k, $event)"
          />
          <span v-if="wrong(`events[${index(k)}].on`)" class="wrong" role="alert">{{ wrong(`events[${index(k)}].on`) }}</span>
        </template>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.events {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
}
.chip {
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  min-height: var(--control);
  cursor: pointer;
}
.chip[aria-pressed='true'] {
  background: var(--rust);
  border-color: var(--rust);
  color: var(--ivory-0);
  font-weight: 600;
}
.date {
  width: 170px;
}
.wrong {
  color: var(--rust);
  font-weight: 600;
}
</style>
