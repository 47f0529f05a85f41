<script setup lang="ts">
// One stop of the day: when to leave, when it begins, what each horse is visited for,
// and what is not done with it.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import BridgeStrip from '../../parts/BridgeStrip.vue'
import { driven } from '../../parts/days'
import RoadPiece from './RoadPiece.vue'
import { dial } from '../../parts/dial'

const { stop, n, open } = defineProps<{ stop: Schemas['Stop']; n: number; open: boolean }>()
const emit = defineEmits<{ open: [] }>()
const people = computed(() => stop.horses.flatMap((h) => h.people))
const first = computed(() => stop.horses[0])
</script>

<template>
  <li class="stop" :class="{ open, done: stop.done }">
    <RoadPiece :n="n" :spare="stop.spare" :late="stop.late ?? 0" :done="stop.done ?? false" />
    <div class="times">
      <p>
        leave <b>{{ stop.leave }}</b>
      </p>
      <p class="quiet">{{ stop.drive ? driven(stop.drive) : 'on foot' }}<template v-if="!stop.known">, not known</template></p>
      <p class="start">{{ stop.start }}</p>
      <p v-if="stop.late" class="late">{{ stop.late }} min late</p>
      <p v-else class="quiet">{{ stop.fixed ? (stop.spare ? `${stop.spare} min spare` : 'to the minute') : 'no fixed time' }}</p>
    </div>
    <div class="what">
      <button type="button" class="line" :aria-expanded="open" @click="emit('open')">
        <b class="time">{{ stop.start }}</b> <b>{{ stop.horses.map((h) => h.name).join(', ') }}</b>
        <span class="quiet">{{ stop.visit.yard_name }}</span>
      </button>
      <div v-for="h in stop.horses" :key="h.id" class="horse">
        <div>
          <h3>
            <RouterLink :to="`/horses/${h.id}`">{{ h.name }}</RouterLink>
            <span class="quiet yard">{{ stop.visit.yard_name || 'no yard' }}</span>
          </h3>
          <p class="aim">{{ h.aim || 'Nothing is planned yet: look first.' }}</p>
          <p>
            <b>{{ h.care || 'not yet graded' }}</b> · {{ stop.visit.minutes }} min<template v-for="x in h.helpers" :key="x">
              · {{ x }}</template
            >
          </p>
          <p v-for="f in h.forbidden" :key="f.key" class="no">{{ f.text }}</p>
          <p v-if="h.check" class="check">{{ h.check.text }}</p>
          <p v-if="h.unread" class="no">What is kept of this horse can't be read here; its page says more.</p>
          <p class="acts">
            <RouterLink v-if="h.open_session" :to="`/arena/${h.open_session}`" class="button">Back into the arena</RouterLink>
            <RouterLink v-else-if="h.case" :to="`/arena/ready/${h.case}`" class="button">Into the arena</RouterLink>
            <a v-for="p in h.people.filter((x) => x.phone)" :key="p.name" :href="dial(p.phone ?? '')" class="ring"
              >Ring {{ p.name }}<span class="wide-only">, {{ p.phone }}</span></a
            >
          </p>
        </div>
        <BridgeStrip v-if="h.bridge" :bridge="h.bridge" class="strip" />
      </div>
      <p v-if="stop.phone && open" class="quiet">
        Yard: <a :href="dial(stop.phone)" class="ring">{{ stop.phone }}</a>
      </p>
      <p v-if="people.length === 0 && first" class="quiet no-print">Nobody to ring is written down.</p>
    </div>
  </li>
</template>

<style scoped>
.stop {
  display: grid;
  grid-template-columns: 60px 104px minmax(0, 1fr);
  gap: 0 var(--gap-3);
}
.times {
  padding-top: 4px;
  line-height: 1.3;
}
.start {
  font: 700 1.6rem/1.2 var(--font-head);
  margin-top: 8px;
}
.late,
.no {
  color: var(--rust);
  font-weight: 700;
}
.what {
  border-bottom: var(--line);
  padding: 10px 0;
  min-width: 0;
}
.horse {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 170px;
  gap: var(--gap-3);
  align-items: start;
}
h3 {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--gap-2);
  font-size: 1.3rem;
  overflow-wrap: anywhere;
}
h3 a {
  color: inherit;
}
.yard {
  font: 400 var(--step-1) var(--font-ui);
}
.aim {
  font-weight: 700;
}
.check {
  font-style: italic;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-1) var(--gap-3);
  align-items: center;
  margin-top: var(--gap-2);
}
.ring {
  display: inline-flex;
  align-items: center;
  min-height: 28px;
}
.line {
  display: none;
}
@media screen and (max-width: 720px) {
  .stop {
    grid-template-columns: 48px minmax(0, 1fr);
  }
  .times {
    display: none;
  }
  .horse {
    grid-template-columns: minmax(0, 1fr);
  }
  .stop:not(.open) .horse,
  .what h3,
  .strip {
    display: none;
  }
  .line {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 var(--gap-2);
    width: 100%;
    min-height: var(--touch);
    align-content: center;
    border: 0;
    background: none;
    text-align: left;
    cursor: pointer;
  }
  .line .quiet {
    grid-column: 2;
  }
  .ring {
    min-height: var(--hand);
  }
}
@media print {
  .stop {
    break-inside: avoid;
  }
  .horse {
    grid-template-columns: minmax(0, 1fr);
  }
  .acts .button,
  .strip,
  .line {
    display: none;
  }
}
</style>
