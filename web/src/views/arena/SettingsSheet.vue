<script setup lang="ts">
// Who holds the rope, which hand, hold or tap; and the keys.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import ArenaSheet from './ArenaSheet.vue'
import KeyList from './KeyList.vue'
import { buzzes, sounds, staysAwake } from './useDevice'

const left = defineModel<boolean>('left', { required: true })
const tapping = defineModel<boolean>('tapping', { required: true })
const { handlers, holder, card } = defineProps<{
  handlers: Schemas['HandlerChoice'][]
  holder: string
  /** The ask at work. */
  card?: Schemas['ArenaCard']
}>()
const emit = defineEmits<{
  turn: [who: string]
  rehearse: []
  time: []
  school: [school: Schemas['ArenaCard']['school']]
  mark: [mark: Schemas['TrackMark'], note?: string]
  close: []
}>()

/** It is the owner's turn. */
const owner = computed(() => handlers.find((h) => h.id === holder && h.owner))

const changed = ref<'tack' | 'place' | 'company' | 'distraction'>('tack')
const what = ref('')
const note = ref('')
const minds = choices(['the person', 'home or herd', 'an object'] as const)
const bump = choices(['fall', 'fright', 'slip'] as const)
const device = computed(() => [
  { value: 'buzz', text: 'a short buzz', on: buzzes },
  { value: 'sound', text: 'a quiet tick', on: sounds },
  { value: 'awake', text: 'stays awake', on: staysAwake },
])

function toggle(what: unknown) {
  const one = device.value.find((d) => d.value === what)
  if (one) one.on.value = !one.on.value
}

function change() {
  const now = what.value.trim()
  emit('mark', { [changed.value]: now }, `${changed.value}: ${now}`)
  what.value = ''
}

function write() {
  emit('mark', {}, note.value.trim())
  note.value = ''
}

const hands = [
  { value: 'right', text: 'right hand' },
  { value: 'left', text: 'left hand' },
]
const ways = [
  { value: 'hold', text: 'hold the rope' },
  { value: 'tap', text: 'tap levels' },
]
</script>

<template>
  <ArenaSheet title="Settings and keys" @close="emit('close')">
    <section v-if="handlers.length > 1">
      <h3>Who holds the rope</h3>
      <ChipRow
        big
        label="Who holds the rope"
        :choices="handlers.map((h) => ({ value: h.id, text: h.name }))"
        :chosen="[holder]"
        @toggle="emit('turn', String($event))"
      />
      <button v-if="owner" type="button" @click="emit('rehearse')">Rehearse it on a person first, with {{ owner.name }}</button>
    </section>
    <section v-if="card && card.schools.length > 1">
      <h3>{{ card.ladder }} is worked in</h3>
      <ChipRow big label="School" :choices="choices(card.schools)" :chosen="[card.school]" @toggle="emit('school', $event)" />
    </section>
    <section>
      <h3>Something happened that is no answer</h3>
      <ChipRow big label="A bump" :choices="bump" :chosen="[]" @toggle="emit('mark', { bump: true }, String($event))" />
      <div class="marks">
        <button type="button" @click="emit('mark', { spooked: true }, 'spooked')">it spooked</button>
        <button type="button" @click="emit('mark', { halter: true })">halter refitted</button>
        <button type="button" @click="emit('mark', { easy_minutes: 5 })">5 minutes of easy time</button>
        <button type="button" @click="emit('mark', { clip: true })">a clip is filmed</button>
        <button v-if="card" type="button" @click="emit('time')">time the footfall</button>
      </div>
      <form class="marks" @submit.prevent="change">
        <select v-model="changed" aria-label="What is otherwise now">
          <option value="tack">tack is now</option>
          <option value="place">place is now</option>
          <option value="company">with it is now</option>
          <option value="distraction">its eye is drawn by</option>
        </select>
        <input v-model="what" maxlength="60" aria-label="What it is now" placeholder="in your words" />
        <button type="submit" :disabled="!what.trim()">Keep</button>
      </form>
      <form class="marks" @submit.prevent="write">
        <input v-model="note" maxlength="2000" aria-label="A note" placeholder="a note" />
        <button type="submit" :disabled="!note.trim()">Keep</button>
      </form>
    </section>
    <section>
      <h3>Its mind is on</h3>
      <ChipRow
        big
        label="Its mind is on"
        :choices="minds"
        :chosen="[]"
        @toggle="emit('mark', { mind: $event }, `mind on ${$event}`)"
      />
    </section>
    <section>
      <h3>This device</h3>
      <ChipRow
        big
        label="This device"
        :choices="device"
        :chosen="device.filter((d) => d.on.value).map((d) => d.value)"
        @toggle="toggle"
      />
    </section>
    <section>
      <h3>Pressure</h3>
      <ChipRow big label="Pressure" :choices="ways" :chosen="[tapping ? 'tap' : 'hold']" @toggle="tapping = $event === 'tap'" />
    </section>
    <section>
      <h3>Which hand is free</h3>
      <ChipRow
        big
        label="Which hand is free"
        :choices="hands"
        :chosen="[left ? 'left' : 'right']"
        @toggle="left = $event === 'left'"
      />
    </section>
    <section>
      <h3>Keys</h3>
      <KeyList />
    </section>
  </ArenaSheet>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
  margin-top: var(--gap-2);
}
.marks button,
.marks select,
.marks input {
  min-height: var(--touch);
  border: 2px solid var(--arena-ink);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font: inherit;
}
.marks button {
  font-weight: 600;
  cursor: pointer;
}
.marks button:disabled {
  border-style: dashed;
}
.marks input {
  flex: 1 1 220px;
}
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
</style>
