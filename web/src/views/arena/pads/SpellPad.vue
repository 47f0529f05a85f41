<script setup lang="ts">
// The place as a plan to tap: work or rest, running until another is tapped. A
// place begins as it is mostly meant, rest where the horse is wanted and work
// elsewhere; one more tap makes it the other. The clock counts from a kept
// instant, so that a locked phone loses nothing.
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'
import { clock } from '../../../words'

export interface Running {
  place: string
  rest: boolean
  at: number
}

const { places, running, now } = defineProps<{ places: Schemas['ArenaPlaceToBe'][]; running?: Running; now: number }>()
const emit = defineEmits<{ begin: [place: string, rest: boolean]; end: [] }>()

const seconds = computed(() => (running ? Math.max(0, (now - running.at) / 1000) : 0))
const trailer = computed(() => places.some((p) => p.place === 'at the door'))

/** Where each place stands on the plan. */
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

function go({ place, rest }: Schemas['ArenaPlaceToBe']) {
  if (running?.place !== place) emit('begin', place, rest)
}
</script>

<template>
  <div class="spells">
    <div class="plan" :class="{ trailer }" role="group" aria-label="Where it is">
      <button
        v-for="p in places"
        :key="p.place"
        type="button"
        class="key"
        :class="spots[p.place]"
        :aria-pressed="running?.place === p.place"
        @click="go(p)"
      >
        {{ p.place }}
        <b v-if="running?.place === p.place">{{ running.rest ? 'rest' : 'work' }} {{ clock(seconds) }}</b>
      </button>
    </div>
    <div class="modes" role="group" aria-label="What runs there">
      <button
        v-for="rest in [true, false]"
        :key="String(rest)"
        type="button"
        class="key"
        :disabled="!running"
        :aria-pressed="running?.rest === rest"
        @click="running && running.rest !== rest && emit('begin', running.place, rest)"
      >
        {{ rest ? 'rest' : 'work' }}
      </button>
      <button type="button" class="key" :disabled="!running" @click="emit('end')">
        {{ running ? `End the ${running.rest ? 'rest' : 'work'}` : 'Nothing runs' }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.spells {
  display: grid;
  gap: var(--gap-3);
  grid-template-columns: minmax(0, 3fr) minmax(0, 1fr);
  min-width: 0;
}
.plan {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: var(--gap-2);
}
.plan.trailer {
  grid-template:
    'far left door half inside' auto
    'far right door half inside' auto / 1.2fr 1fr 1fr 1fr 1fr;
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
  grid-area: far;
}
.modes {
  display: grid;
  gap: var(--gap-2);
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
}
.modes .key:last-child {
  grid-column: 1 / -1;
}
.key {
  direction: ltr;
  min-height: var(--touch);
  min-width: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  color: var(--arena-ink);
  font-size: var(--step-2);
  font-weight: 600;
  line-height: 1.15;
  padding: var(--gap-1);
  cursor: pointer;
}
.key b {
  display: block;
}
.trailer .half {
  border-right-style: dashed;
}
.trailer .inside {
  border-left-style: dashed;
}
.trailer .half,
.trailer .inside {
  background: var(--ivory-2);
}
.key[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
.key:disabled {
  border-style: dashed;
  cursor: default;
}
@media (max-width: 720px) {
  .spells {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--gap-2);
  }
  .plan,
  .plan.trailer {
    grid-template: none;
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .trailer .key {
    grid-area: auto;
  }
  .modes {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .modes .key:last-child {
    grid-column: auto;
  }
  .key {
    font-size: var(--step-1);
  }
}
</style>
