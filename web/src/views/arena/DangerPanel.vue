<script setup lang="ts">
// Make safe: whom to call, where, and what happened. The numbers are kept on
// this device.
import { computed, ref } from 'vue'
import ArenaSheet from './ArenaSheet.vue'
import ArousalKeys from './ArousalKeys.vue'
import ChipRow from '../../parts/ChipRow.vue'
import type { ArenaSession, Rep } from './useArena'

type Way = NonNullable<Rep['ways_out']>[number]
type Stop = ArenaSession['stops'][number]

const { session, calm } = defineProps<{ session: ArenaSession; calm: number }>()
const emit = defineEmits<{ ways: [ways: Way[]]; stop: [stop: Stop]; arousal: [level: number]; note: [text: string]; close: [] }>()

const ways = ref<Way[]>([])
const note = ref('')
const noted = ref(false)
const dangerous = computed(() => session.ways_out.filter((w) => w.danger).map((w) => ({ value: w.word, text: w.word })))
const stops = computed(() => session.stops.map((s) => ({ value: s, text: s })))

function toggle(way: Way) {
  ways.value = ways.value.includes(way) ? ways.value.filter((w) => w !== way) : [...ways.value, way]
  emit('ways', ways.value)
}

function keep() {
  emit('note', note.value.trim())
  noted.value = true
}
</script>

<template>
  <ArenaSheet title="Make safe" @close="emit('close')">
    <p class="first">Stop asking. Give it distance. People first, then the horse.</p>
    <ul class="calls">
      <li v-for="c in session.contacts" :key="c.what + c.phone">
        <a :href="`tel:${c.phone.replaceAll(' ', '')}`">
          <span>{{ c.what }}</span> <b>{{ c.phone }}</b> <span>{{ c.name }}</span>
        </a>
      </li>
    </ul>
    <p v-if="session.contacts.length === 0">
      No numbers are written down for this horse. Add the vet, the owner and the yard in People.
    </p>
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
    <section>
      <h3>Incident note</h3>
      <label class="visually-hidden" for="incident">What happened, to whom, and what was done</label>
      <textarea id="incident" v-model="note" rows="3" maxlength="2000" placeholder="What happened, to whom, and what was done" />
      <button type="button" :disabled="!note.trim()" @click="keep">Keep the note</button>
      <p v-if="noted" role="status">Kept.</p>
    </section>
  </ArenaSheet>
</template>

<style scoped>
.first {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
.calls {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(220px, 100%), 1fr));
  gap: var(--gap-2);
}
.calls a {
  display: grid;
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  padding: var(--gap-1) var(--gap-3);
  color: var(--arena-ink);
  text-decoration: none;
  font-size: var(--step-1);
}
.calls b {
  font-size: var(--step-2);
}
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
textarea {
  font: inherit;
  width: 100%;
  border: var(--stroke);
  border-radius: var(--radius);
  padding: var(--gap-2);
}
section > button {
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font-weight: 700;
  cursor: pointer;
}
</style>
