<script setup lang="ts">
// What is measured beside the answer: a hold by its clock, which runs from the
// tap "it stands"; a count or a distance by a tap.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { clock, measured } from '../../words'

export interface Measured {
  reached?: number
  corrections?: number
  ended_by?: 'handler' | 'horse'
  /** When the clock was started, ms. */
  since?: number
  means?: number
  in_words?: boolean
}

const { card, value, now } = defineProps<{ card: Schemas['ArenaCard']; value: Measured; now: number }>()
const emit = defineEmits<{ change: [value: Measured] }>()

const timed = computed(() => card.unit === 's')
const corrected = computed(() => card.measures.includes('hold'))
const seconds = computed(() => Math.max(0, ((value.since && now - value.since) || 0) / 1000))

function start() {
  emit('change', { ...value, since: Date.now(), reached: undefined, ended_by: undefined, corrections: 0 })
}

function end(by: 'handler' | 'horse') {
  const reached = Math.max(0, Math.floor((Date.now() - (value.since ?? Date.now())) / 1000))
  emit('change', { ...value, since: undefined, reached, ended_by: by })
}
</script>

<template>
  <div v-if="timed" class="measure">
    <button v-if="!value.since" type="button" @click="start">
      {{ value.reached === undefined ? 'it stands' : `${value.reached} s, again` }}
    </button>
    <template v-else>
      <button type="button" @click="end('handler')">
        <b>{{ clock(seconds) }}</b> I end it
      </button>
      <button type="button" @click="end('horse')">it broke</button>
    </template>
    <button
      v-if="corrected && (value.since || value.reached !== undefined)"
      type="button"
      class="small-key"
      @click="emit('change', { ...value, corrections: (value.corrections ?? 0) + 1 })"
    >
      corrected {{ value.corrections ?? 0 }}
    </button>
  </div>
  <div v-else-if="card.values.length" class="measure" role="group" aria-label="How far it came">
    <button
      v-for="v in [...(card.unit === 'mm' ? [] : [0]), ...card.values]"
      :key="v"
      type="button"
      class="small-key"
      :aria-pressed="value.reached === v"
      @click="emit('change', { ...value, reached: value.reached === v ? undefined : v })"
    >
      {{ measured(v, card.unit) }}
    </button>
  </div>
</template>

<style scoped src="./smallKey.css"></style>

<style scoped>
.measure {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
  margin-top: var(--gap-2);
}
</style>
