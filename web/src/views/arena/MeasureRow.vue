<script setup lang="ts">
// What is measured beside the answer: a hold by its stopwatch, a count or a
// distance by a tap.
import { computed, onUnmounted, ref } from 'vue'
import type { Schemas } from '../../api/client'
import { clock, measured } from '../../words'

export interface Measured {
  reached?: number
  corrections?: number
  ended_by?: 'handler' | 'horse'
}

const { card, value } = defineProps<{ card: Schemas['Card']; value: Measured }>()
const emit = defineEmits<{ change: [value: Measured] }>()

const timed = computed(() => card.unit === 's')
const corrected = computed(() => card.measures.includes('hold'))
const running = ref(0)
const seconds = ref(0)
let timer: ReturnType<typeof setInterval> | undefined

function start() {
  running.value = Date.now()
  seconds.value = 0
  emit('change', { corrections: 0 })
  timer = setInterval(() => (seconds.value = (Date.now() - running.value) / 1000), 200)
}

function end(by: 'handler' | 'horse') {
  clearInterval(timer)
  seconds.value = (Date.now() - running.value) / 1000
  running.value = 0
  emit('change', { ...value, reached: Math.floor(seconds.value), ended_by: by })
}

onUnmounted(() => clearInterval(timer))
</script>

<template>
  <div v-if="timed" class="measure">
    <button v-if="!running" type="button" @click="start">
      {{ value.reached === undefined ? 'Start the clock' : `${value.reached} s, again` }}
    </button>
    <template v-else>
      <button type="button" @click="end('handler')">
        <b>{{ clock(seconds) }}</b> I end it
      </button>
      <button type="button" @click="end('horse')">it broke</button>
    </template>
    <button
      v-if="corrected && (running || value.reached !== undefined)"
      type="button"
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
      :aria-pressed="value.reached === v"
      @click="emit('change', { ...value, reached: value.reached === v ? undefined : v })"
    >
      {{ measured(v, card.unit) }}
    </button>
  </div>
</template>

<style scoped>
.measure {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
  margin-top: var(--gap-2);
}
button {
  flex: 1 1 72px;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  min-height: var(--touch);
  font-size: var(--step-1);
  font-weight: 600;
  cursor: pointer;
}
button[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
</style>
