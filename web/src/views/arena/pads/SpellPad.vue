<script setup lang="ts">
// The place as a plan to tap: work or rest, running until another is tapped. A
// place begins as it is mostly meant, rest where the horse is wanted and work
// elsewhere; one more tap makes it the other. The clock counts from a kept
// instant, so that a locked phone loses nothing.
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'
import { clock } from '../../../words'

type Spell = Schemas['TrackSpell']

export interface Running {
  place: string
  rest: boolean
  at: number
  /** It was led there; else it came by itself. */
  asked?: boolean
  feet?: number
  work?: Spell['work']
  /** Of the work: as it was last felt. */
  level?: number
}

const { places, running, now } = defineProps<{ places: Schemas['ArenaPlaceToBe'][]; running?: Running; now: number }>()
const emit = defineEmits<{ begin: [place: string, rest: boolean]; change: [running: Running]; end: [by: Spell['ended_by']] }>()

const seconds = computed(() => (running ? Math.max(0, (now - running.at) / 1000) : 0))
const trailer = computed(() => places.some((p) => p.place === 'at the door'))
const works = ['shoulder', 'hind', 'back', 'forward', 'circle'] as const
const onIt = computed(() => running && ['front feet in', 'in'].includes(running.place))

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
const say = (more: Partial<Running>) => running && emit('change', { ...running, ...more })
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
      <template v-if="running">
        <button v-if="running.rest" type="button" class="key" @click="emit('end', 'horse')">it left</button>
        <button type="button" class="key" :class="{ all: !running.rest }" @click="emit('end', 'handler')">
          {{ running.rest ? 'End the rest' : `End the work${running.level ? `, level ${running.level}` : ''}` }}
        </button>
      </template>
      <button v-else type="button" class="key all" disabled>Nothing runs</button>
    </div>
    <div v-if="running?.rest" class="more" role="group" aria-label="How it came there">
      <button type="button" class="key" :aria-pressed="!running.asked" @click="say({ asked: false })">by itself</button>
      <button type="button" class="key" :aria-pressed="!!running.asked" @click="say({ asked: true })">asked</button>
      <template v-if="onIt">
        <button
          v-for="n in 4"
          :key="n"
          type="button"
          class="key"
          :aria-label="`${n} feet in`"
          :aria-pressed="running.feet === n"
          @click="say({ feet: n })"
        >
          {{ n }}<small v-if="n === 1"> foot in</small>
        </button>
      </template>
    </div>
    <div v-else-if="running" class="more" role="group" aria-label="What the work is">
      <button
        v-for="w in works"
        :key="w"
        type="button"
        class="key"
        :aria-pressed="running.work === w"
        @click="say({ work: running.work === w ? undefined : w })"
      >
        {{ w }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.spells {
  display: grid;
  gap: var(--gap-2) var(--gap-3);
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
.modes .all {
  grid-column: 1 / -1;
}
.more {
  grid-column: 1 / -1;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: var(--gap-2);
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
.more .key {
  min-width: 0;
  font-size: var(--step-1);
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
    grid-auto-flow: column;
    grid-auto-columns: minmax(0, 1fr);
    grid-template-columns: none;
  }
  .modes .all {
    grid-column: auto;
  }
  .key {
    font-size: var(--step-1);
  }
  .more .key {
    font-size: var(--step-0);
  }
}
</style>
