<script setup lang="ts">
// A dose runs until the horse stands: its strokes or seconds, the steps it
// took, the kicks at the tool. It is kept by its instant.
import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'
import { measured } from '../../../words'

export type Dosed = Pick<Schemas['TrackDose'], 'given' | 'steps' | 'kicks' | 'seconds' | 'stood'>

const { store, planned, unit, now } = defineProps<{
  /** Where the running dose is kept on this device. */
  store: string
  planned: number
  unit: string
  now: number
  /** Where on the body. */
  place: string
}>()
const emit = defineEmits<{ dose: [dose: Dosed]; place: [] }>()

interface Run {
  at: number
  strokes: number
  steps: number
  kicks: number
}

const run = useLocalStorage<Run | null>(store, null, { serializer: StorageSerializers.object })
const seconds = computed(() => (run.value ? Math.max(0, Math.floor((now - run.value.at) / 1000)) : 0))
const timed = computed(() => unit === 's')
const given = computed(() => (timed.value ? seconds.value : (run.value?.strokes ?? 0)))

function begin() {
  run.value = { at: Date.now(), strokes: 0, steps: 0, kicks: 0 }
}

function more(what: 'strokes' | 'steps' | 'kicks') {
  if (run.value) run.value = { ...run.value, [what]: run.value[what] + 1 }
}

/** It stands: off. How it stood is said by the key; the rules say what it was. */
function stands(stood: Dosed['stood']) {
  const r = run.value
  if (!r) return
  run.value = null
  emit('dose', {
    given: given.value || undefined,
    steps: r.steps || undefined,
    kicks: r.kicks ? Math.min(r.kicks, 10) : undefined,
    seconds: Math.round((Date.now() - r.at) / 1000),
    stood,
  })
}
</script>

<template>
  <div v-if="!run" class="pad" role="group" aria-label="Dose">
    <button type="button" class="main" @click="begin">
      Begin the dose<small>{{ planned ? `planned: ${measured(planned, unit)}` : 'on until it stands' }}</small>
    </button>
    <button type="button" @click="emit('place')">{{ place || 'where?' }}<small>on the body</small></button>
  </div>
  <div v-else class="pad" role="group" aria-label="Dose running">
    <p v-if="timed" class="runs">
      <span class="count">{{ given }}</span><small>{{ planned ? `of ${planned} s` : 'seconds' }}</small>
    </p>
    <button v-else type="button" @click="more('strokes')">
      <span class="count">{{ given }}</span><small>{{ planned ? `stroke, of ${planned}` : 'stroke' }}</small>
    </button>
    <button type="button" @click="more('steps')">
      <span class="count">{{ run.steps }}</span><small>step it took</small>
    </button>
    <button type="button" @click="more('kicks')">
      <span class="count">{{ run.kicks }}</span><small>kick at it</small>
    </button>
    <button type="button" class="main" @click="stands('accepted')">
      stands, soft<small>{{ run.steps ? 'it moved first: off, and the start dose again' : 'off now' }}</small>
    </button>
    <button type="button" class="main" @click="stands('tolerated')">stands, tense<small>off now</small></button>
  </div>
</template>

<style scoped src="./pad.css"></style>
