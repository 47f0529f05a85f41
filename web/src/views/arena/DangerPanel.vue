<script setup lang="ts">
// Make safe: whom to call, where, and what happened. The numbers are kept on
// this device.
import { computed, ref } from 'vue'
import ArenaSheet from './ArenaSheet.vue'
import ArousalKeys from './ArousalKeys.vue'
import CallList from './CallList.vue'
import IncidentNote from './IncidentNote.vue'
import ChipRow from '../../parts/ChipRow.vue'
import type { ArenaSession, Rep } from './useArena'

type Way = NonNullable<Rep['ways_out']>[number]
type Stop = ArenaSession['stops'][number]

const { session, calm } = defineProps<{ session: ArenaSession; calm: number }>()
const emit = defineEmits<{ ways: [ways: Way[]]; stop: [stop: Stop]; arousal: [level: number]; note: [text: string]; close: [] }>()

const ways = ref<Way[]>([])
const dangerous = computed(() => session.ways_out.filter((w) => w.danger).map((w) => ({ value: w.word, text: w.word })))
const stops = computed(() => session.stops.map((s) => ({ value: s, text: s })))

function toggle(way: Way) {
  ways.value = ways.value.includes(way) ? ways.value.filter((w) => w !== way) : [...ways.value, way]
  emit('ways', ways.value)
}
</script>

<template>
  <ArenaSheet title="Make safe" @close="emit('close')">
    <p class="first">Stop asking. Give it distance. People first, then the horse.</p>
    <CallList :contacts="session.contacts" />
    <p><b>Where: </b>{{ [session.yard, session.address].filter(Boolean).join(', ') || 'no address written down' }}</p>
    <section>
      <h3>What it did</h3>
      <ChipRow big label="What it did" :choices="dangerous" :chosen="ways" @toggle="toggle($event as Way)" />
    </section>
    <ArousalKeys :words="session.arousals.map((a) => a.text)" :calm="calm" @arousal="emit('arousal', $event)" />
    <section>
      <h3>A reason to stop for today</h3>
      <ChipRow big label="Reason to stop" :choices="stops" :chosen="[]" @toggle="emit('stop', $event as Stop)" />
    </section>
    <IncidentNote @note="emit('note', $event)" />
  </ArenaSheet>
</template>

<style scoped>
.first {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
</style>
