<script setup lang="ts">
// The place as a plan to tap: work or rest, running until another is tapped.
// The clock counts from a kept instant, so that a locked phone loses nothing.
import { computed } from 'vue'
import { clock } from '../../../words'

export interface Running {
  place: string
  rest: boolean
  at: number
}

const { places, running, now } = defineProps<{ places: string[]; running?: Running; now: number }>()
const emit = defineEmits<{ begin: [place: string, rest: boolean]; end: [] }>()

const seconds = computed(() => (running ? Math.max(0, (now - running.at) / 1000) : 0))
const is = (place: string, rest: boolean) => running?.place === place && running.rest === rest

/** Where each place stands on the plan: column and row. */
const spots: Record<string, string> = {
  away: 'far',
  'beside left': 'left',
  'beside right': 'right',
  'at the door': 'door',
  'front feet in': 'half',
  in: 'inside',
  'near home': 'left',
  companion: 'right',
}
const trailer = computed(() => places.includes('at the door'))
</script>

<template>
  <div class="spells">
    <div class="plan" :class="{ trailer }">
      <div
        v-for="p in places"
        :key="p"
        class="place"
        :class="[spots[p], { here: running?.place === p }]"
        role="group"
        :aria-label="p"
      >
        <span class="name">{{ p }}</span>
        <button type="button" class="act" :aria-pressed="is(p, true)" @click="emit('begin', p, true)">
          rest <b v-if="is(p, true)">{{ clock(seconds) }}</b>
        </button>
        <button type="button" class="act" :aria-pressed="is(p, false)" @click="emit('begin', p, false)">
          work <b v-if="is(p, false)">{{ clock(seconds) }}</b>
        </button>
      </div>
    </div>
    <button type="button" class="act stop" :disabled="!running" @click="emit('end')">
      {{ running ? `End the ${running.rest ? 'rest' : 'work'} ${running.place}` : 'Nothing runs' }}
    </button>
  </div>
</template>

<style scoped>
.spells {
  display: grid;
  gap: var(--gap-2);
  min-width: 0;
}
.plan {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: var(--gap-2);
}
.plan.trailer {
  grid-template:
    'left inside right' auto
    'left half right' auto
    'far door far' auto / minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1fr);
}
.trailer .left {
  grid-area: left;
}
.trailer .right {
  grid-area: right;
}
.trailer .inside {
  grid-area: inside;
}
.trailer .half {
  grid-area: half;
}
.trailer .door {
  grid-area: door;
}
.trailer .far {
  grid-area: 3 / 1 / 4 / 2;
}
.place {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  align-content: center;
  gap: 2px var(--gap-2);
  padding: var(--gap-1) var(--gap-2) var(--gap-2);
  border: 2px solid var(--ivory-3);
  border-radius: var(--radius);
}
.trailer .inside,
.trailer .half {
  border: var(--stroke);
  background: var(--ivory-2);
}
.trailer .inside {
  border-bottom-style: dashed;
}
.trailer .half {
  border-top-style: dashed;
}
.place.here {
  outline: 4px solid var(--arena-ink);
}
.name {
  grid-column: 1 / -1;
  font-weight: 700;
}
.act {
  min-height: var(--touch);
  min-width: 0;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  font-size: var(--step-2);
  font-weight: 600;
  cursor: pointer;
}
.act[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
.stop:disabled {
  border-style: dashed;
  cursor: default;
}
@media (max-width: 720px) {
  .plan,
  .plan.trailer {
    grid-template: none;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .trailer .place {
    grid-area: auto;
  }
  .act {
    font-size: var(--step-1);
  }
}
</style>
