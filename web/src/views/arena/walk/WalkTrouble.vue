<script setup lang="ts">
// Trouble on the road: what it did, the dangerous ways first, how it is now, and whom to
// ring.
import { computed, ref } from 'vue'
import ChipRow from '../../../parts/ChipRow.vue'
import CallList from '../CallList.vue'
import IncidentNote from '../IncidentNote.vue'
import ArenaSheet from '../ArenaSheet.vue'
import ArousalKeys from '../ArousalKeys.vue'
import type { ArenaSession, Rep } from '../useArena'

type Way = NonNullable<Rep['ways_out']>[number]

const { session } = defineProps<{ session: ArenaSession }>()
const emit = defineEmits<{ ways: [ways: Way[]]; arousal: [level: number]; note: [text: string]; spooked: []; close: [] }>()
const ways = ref<Way[]>([])
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
      <button type="button" class="spook" @click="spook">It spooked</button>
      <span v-if="spooks" role="status">{{ spooks === 1 ? 'Once, kept.' : `${spooks} times, kept.` }}</span>
    </p>
    <ArousalKeys :words="session.arousals.map((a) => a.text)" :calm="calm" @arousal="feel" />
    <CallList :contacts="session.contacts" />
    <IncidentNote @note="emit('note', $event)" />
  </ArenaSheet>
</template>

<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-1);
}
.spook {
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font-weight: 700;
  cursor: pointer;
}
</style>
