<script setup lang="ts">
// One day of the diary: what stands on it, what is due, what was done. A visit can be
// dropped on it.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import { count } from '../../words'
import { dragged } from './dragged'
import { dayOf, driven, weekdayOf } from '../../parts/days'

type Visit = Schemas['Booked']

const { day, today } = defineProps<{ day: Schemas['Day']; today: string }>()
const emit = defineEmits<{ open: [visit: Visit]; ink: [visit: Visit]; move: [visit: Visit, on: string]; put: [] }>()

const most = 5
const all = ref(false)
const over = ref(false)
const shown = computed(() => (all.value ? day.visits : day.visits.slice(0, most)))
const past = computed(() => day.on < today)
const clashOf = (v: Visit) => day.clashes.find((c) => c.b === v.id)
const clashing = (v: Visit) => day.clashes.some((c) => c.a === v.id || c.b === v.id)
const done = (v: Visit) => day.done.includes(v.id)
const names = (v: Visit) => v.horses.map((h) => h.name).join(', ')

function drop() {
  over.value = false
  const v = dragged.value
  dragged.value = undefined
  if (v && v.on !== day.on) emit('move', v, day.on)
}
</script>

<template>
  <li
    class="day"
    :class="{ now: day.on === today, past, over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <div class="date">
      <b class="number">{{ dayOf(day.on) }}</b>
      <span>{{ weekdayOf(day.on) }}</span>
      <span v-if="day.road" class="quiet small">road {{ driven(day.road) }}</span>
    </div>
    <ul class="lines">
      <li v-for="d in day.due" :key="d.horse + d.says.text" class="due" :class="d.kind">
        <b v-if="d.late" class="late">late</b>
        <RouterLink :to="`/horses/${d.horse}${d.kind === 'deadline' ? '/plan' : '/assessment'}`">{{ d.name }}</RouterLink>
        {{ d.says.text }}
      </li>
      <li v-for="b in day.busy" :key="b.from + b.what" class="busy quiet">{{ b.from }} to {{ b.to }} {{ b.what || 'taken' }}</li>
      <li
        v-for="v in shown"
        :key="v.id"
        class="visit"
        :class="{ pencil: !v.agreed, gone: v.cancelled, clash: clashing(v) }"
        :draggable="!v.cancelled && !done(v)"
        @dragstart="dragged = v"
        @dragend="dragged = undefined"
      >
        <button
          type="button"
          class="open"
          :title="v.aim"
          @click="emit('open', v)"
          @keydown.m.prevent="emit('open', v)"
          @keydown.i.prevent="!v.agreed && emit('ink', v)"
        >
          <span v-if="done(v)" class="tick">✓<span class="visually-hidden"> done</span></span>
          <span class="time">{{ v.at || 'no time' }}</span> <b class="name">{{ names(v) }}</b>
          <span class="quiet aim">{{ v.cancelled || v.aim }}</span>
        </button>
        <button v-if="!v.agreed && !v.cancelled" type="button" class="as-link no-print" @click="emit('ink', v)">
          ink<span class="visually-hidden"> the visit to {{ names(v) }}</span>
        </button>
        <p v-if="clashOf(v)" class="short">
          {{ clashOf(v)?.says.text }} <button type="button" class="as-link" @click="emit('open', v)">Move one</button>
        </p>
      </li>
      <li v-if="day.worked.length" class="worked quiet">
        <span class="tick">✓</span> worked:
        <template v-for="(w, i) in day.worked" :key="w.session"
          ><template v-if="i">, </template><RouterLink :to="`/arena/${w.session}/after`">{{ w.name }}</RouterLink></template
        >
      </li>
      <li v-if="day.visits.length > most && !all">
        <button type="button" class="as-link" @click="all = true">{{ count(day.visits.length - most, 'more', 'more') }}</button>
      </li>
      <li v-if="!past && !day.visits.length" class="no-print">
        <button type="button" class="as-link free" @click="emit('put')">
          free<span class="visually-hidden">: put in a visit</span>
        </button>
      </li>
    </ul>
    <span v-if="day.practised.length" class="bead" :title="`practised at home: ${day.practised.map((h) => h.name).join(', ')}`"
      ><span class="visually-hidden">practised at home: {{ day.practised.map((h) => h.name).join(', ') }}</span></span
    >
  </li>
</template>

<style scoped>
.day {
  position: relative;
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  min-height: 76px;
  border-bottom: 1px solid var(--ink-3);
}
.day.now {
  outline: 2px solid var(--ink-1);
  outline-offset: -2px;
}
.day.over {
  background: var(--ivory-2);
}
.date {
  display: grid;
  align-content: start;
  justify-items: end;
  padding: 6px var(--gap-2) 4px 0;
  border-right: 1.5px solid var(--margin-rule);
  text-align: right;
  line-height: 1.2;
}
.number {
  font: 700 1.35rem/1 var(--font-head);
}
.lines {
  padding: 4px 18px 4px var(--gap-2);
  min-width: 0;
}
.visit {
  position: relative;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--gap-2);
  border-bottom: var(--line);
}
.visit.clash {
  border-left: 3px solid var(--rust);
  padding-left: 6px;
}
.late {
  color: var(--rust);
  margin-right: var(--gap-1);
}
.open {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--gap-2);
  align-items: baseline;
  flex: 1;
  min-width: 0;
  min-height: 26px;
  padding: 2px 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  overflow-wrap: anywhere;
}
.time {
  font-variant-numeric: tabular-nums;
}
.pencil .open,
.pencil .name {
  font-style: italic;
  font-weight: 400;
}
.pencil .name {
  text-decoration: underline dashed;
  text-underline-offset: 3px;
}
.gone .name,
.gone .time {
  text-decoration: line-through;
}
.tick {
  color: var(--pasture-deep);
  font-weight: 700;
}
.free {
  color: var(--ink-2);
  font-style: italic;
  font-weight: 400;
  text-decoration: none;
}
.short {
  flex-basis: 100%;
  color: var(--rust);
  font-weight: 700;
}
.busy {
  padding: 2px 0;
  border-bottom: var(--line);
}
.due {
  padding: 2px 0 2px 10px;
  border-left: 3px double var(--leather);
}
.due.deadline {
  border-left: 6px solid var(--rust);
}
.due a {
  font-weight: 700;
  color: inherit;
}
.worked {
  padding: 2px 0;
}
.worked a {
  color: inherit;
}
.bead {
  position: absolute;
  right: 2px;
  top: 10px;
  width: 12px;
  height: 12px;
  border: 2px solid var(--pasture-deep);
  border-radius: 50%;
  background: var(--pasture);
}
@media (max-width: 900px) {
  .open {
    min-height: var(--hand);
  }
}
</style>
