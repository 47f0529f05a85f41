<script setup lang="ts">
// Trouble on the road: what it did, the dangerous ways first, how it is now, and whom to
// ring.
import { computed, ref } from 'vue'
import ChipRow from '../../../parts/ChipRow.vue'
import ArenaSheet from '../ArenaSheet.vue'
import ArousalKeys from '../ArousalKeys.vue'
import type { ArenaSession, Rep } from '../useArena'

type Way = NonNullable<Rep['ways_out']>[number]

const { session } = defineProps<{ session: ArenaSession }>()
const emit = defineEmits<{ ways: [ways: Way[]]; arousal: [level: number]; note: [text: string]; spooked: []; close: [] }>()
const ways = ref<Way[]>([])
const note = ref('')
const kept = ref(false)
const spooks = ref(0)
const calm = ref(-1)
const chips = (danger: boolean) =>
  session.ways_out.filter((w) => w.danger === danger).map((w) => ({ value: w.word, text: w.word }))
const dangerous = computed(() => chips(true))
const others = computed(() => chips(false))

function toggle(way: Way) {
  ways.value = ways.value.includes(way) ? ways.value.filter((w) => w !== way) : [...ways.value, way]
  emit('ways', ways.value)
}
function spook() {
  spooks.value++
  emit('spooked')
}
function feel(level: number) {
  calm.value = level
  emit('arousal', level)
}
function keep() {
  emit('note', note.value.trim())
  kept.value = true
}
</script>

<template>
  <ArenaSheet title="Trouble" @close="emit('close')">
    <p>People first, then the horse. Get off, or stand clear, before anything is tapped.</p>
    <section>
      <h3>Dangerous</h3>
      <ChipRow big label="Dangerous" :choices="dangerous" :chosen="ways" @toggle="toggle($event as Way)" />
    </section>
    <section>
      <h3>Other ways out</h3>
      <ChipRow big label="Other ways out" :choices="others" :chosen="ways" @toggle="toggle($event as Way)" />
    </section>
    <p class="row">
      <button type="button" class="call" @click="spook">It spooked</button>
      <span v-if="spooks" role="status">{{ spooks === 1 ? 'Once, kept.' : `${spooks} times, kept.` }}</span>
    </p>
    <ArousalKeys :words="session.arousals.map((a) => a.text)" :calm="calm" @arousal="feel" />
    <ul>
      <li v-for="c in session.contacts" :key="c.what + c.phone">
        <a :href="`tel:${c.phone.replaceAll(' ', '')}`" class="call">
          {{ c.what }} <b>{{ c.phone }}</b> {{ c.name }}
        </a>
      </li>
    </ul>
    <section class="note">
      <label class="visually-hidden" for="trouble-note">What happened, and what was done</label>
      <textarea id="trouble-note" v-model="note" rows="2" maxlength="2000" placeholder="what happened, and what was done" />
      <button type="button" :disabled="!note.trim()" @click="keep">Keep the note</button>
      <p v-if="kept" role="status">Kept.</p>
    </section>
  </ArenaSheet>
</template>

<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-1);
}
.call {
  display: grid;
  align-content: center;
  min-height: var(--touch);
  border-top: var(--line);
  color: var(--arena-ink);
}
.note {
  display: grid;
  gap: var(--gap-2);
}
textarea {
  font: inherit;
  width: 100%;
  border: var(--stroke);
  border-radius: var(--radius);
  padding: var(--gap-2);
}
.note button {
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  font-weight: 700;
  cursor: pointer;
}
</style>
