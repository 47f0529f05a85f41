<script setup lang="ts">
// The place as a plan to tap: work or rest, running until another is tapped.
// The clock counts from a kept instant, so that a locked phone loses nothing.
import { computed } from 'vue'
import { clock } from '../../words'

export interface Running {
  place: string
  rest: boolean
  at: number
}

const { places, running, now } = defineProps<{ places: string[]; running?: Running; now: number }>()
const emit = defineEmits<{ begin: [place: string, rest: boolean]; end: [] }>()

const seconds = computed(() => (running ? Math.max(0, (now - running.at) / 1000) : 0))
const is = (place: string, rest: boolean) => running?.place === place && running.rest === rest
</script>

<template>
  <div class="spells">
    <div v-for="p in places" :key="p" class="place" :class="{ here: running?.place === p }" role="group" :aria-label="p">
      <span class="name">{{ p }}</span>
      <button type="button" class="act" :aria-pressed="is(p, true)" @click="emit('begin', p, true)">
        rest <b v-if="is(p, true)">{{ clock(seconds) }}</b>
      </button>
      <button type="button" class="act" :aria-pressed="is(p, false)" @click="emit('begin', p, false)">
        work <b v-if="is(p, false)">{{ clock(seconds) }}</b>
      </button>
    </div>
    <button type="button" class="act stop" :disabled="!running" @click="emit('end')">
      {{ running ? `End the ${running.rest ? 'rest' : 'work'} ${running.place}` : 'Nothing runs' }}
    </button>
  </div>
</template>

<style scoped>
.spells {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: var(--gap-2);
  flex: 1 0 100%;
}
.place {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 2px var(--gap-2);
}
.place .name {
  grid-column: 1 / -1;
}
.name {
  font-weight: 700;
}
.act {
  min-height: var(--touch);
  min-width: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  font-weight: 600;
  cursor: pointer;
}
.act[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
.stop {
  grid-column: 1 / -1;
}
.stop:disabled {
  border-style: dashed;
  cursor: default;
}
</style>
