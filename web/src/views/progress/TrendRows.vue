<script setup lang="ts">
// What got lighter or quicker, ask by ask: a dot a session, the line only with its
// band, its ends labelled, the word beside it. Dots alone where it is too early.
import { computed } from 'vue'
import { dayMonth } from '../../words'
import { across, band, said, tall, top, up, wide, type Line } from './trendRow'

const { lines, all, days, marked } = defineProps<{
  lines: Line[]
  /** Those that share a height scale with them. */
  all: Line[]
  /** The days of the sessions. */
  days: string[]
  /** The session that is marked in all drawings. */
  marked: string
}>()
const emit = defineEmits<{ mark: [session: string] }>()

const sessions = computed(() => days.length)
const drawn = computed(() =>
  lines.map((l) => {
    const most = top(all, l.measure)
    const dots = l.trend.points.map((p, i) => ({
      x: across(p.x, sessions.value),
      y: up(p.y, most),
      session: l.sessions[i] ?? '',
      says: `session ${p.x}: ${said(l, p.y)}`,
    }))
    const [first, last] = [dots[0], dots.at(-1)]
    return {
      line: l,
      dots,
      early: l.trend.word === 'too early to say',
      band: band(l, sessions.value, most),
      path: first && last ? `M${first.x} ${up(l.trend.from, most)}L${last.x} ${up(l.trend.to, most)}` : '',
      from: said(l, l.trend.points[0]?.y ?? 0),
      to: said(l, l.trend.points.at(-1)?.y ?? 0),
    }
  }),
)
const what = (l: Line) => (l.measure === 'level' ? '' : l.measure)
</script>

<template>
  <ul>
    <li v-for="d in drawn" :key="d.line.name.text + d.line.measure">
      <p class="name">
        {{ d.line.name.text }} <span v-if="what(d.line)" class="quiet small">{{ what(d.line) }}</span>
        <span class="word small">{{ d.line.says.text }}</span>
      </p>
      <span class="end">{{ d.from }}</span>
      <svg
        :viewBox="`0 0 ${wide} ${tall}`"
        role="img"
        :aria-label="`${d.line.name.text}, ${d.line.measure}: ${d.from} at first, ${d.to} now, ${d.line.says.text}`"
      >
        <path v-if="d.band" :d="d.band" class="band" />
        <path v-if="!d.early" :d="d.path" class="line" />
        <g v-for="p in d.dots" :key="p.x" class="dot" @click="emit('mark', p.session)">
          <title>{{ p.says }}</title>
          <circle :cx="p.x" :cy="p.y" r="9" class="touch" />
          <circle :cx="p.x" :cy="p.y" r="4" class="ink" :class="{ here: p.session === marked }" />
        </g>
        <path :d="`M0 ${tall - 1}H${wide}`" class="ground" />
      </svg>
      <span class="end">{{ d.to }}</span>
    </li>
    <li class="days small" aria-hidden="true">
      <span class="when">{{ dayMonth(days[0] ?? '') }}</span>
      <span>{{ dayMonth(days.at(-1) ?? '') }}</span>
    </li>
  </ul>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 8rem 2.2rem minmax(0, 1fr) 2.6rem;
  align-items: center;
  gap: var(--gap-1);
}
.name {
  font-weight: 600;
  line-height: 1.2;
}
.word {
  display: block;
  font-weight: 400;
  color: var(--ink-2);
}
.name .quiet {
  font-weight: 400;
}
.name > span + span::before {
  content: ' ';
}
.days {
  grid-template-columns: 8rem 2.2rem minmax(0, 1fr) auto;
  color: var(--ink-2);
}
.when {
  grid-column: 3;
}
.end {
  font-variant-numeric: tabular-nums;
}
.end:first-of-type {
  text-align: right;
}
svg {
  width: 100%;
  overflow: visible;
}
.band {
  fill: var(--ivory-2);
}
.line {
  stroke: var(--leather);
  stroke-width: 2.4;
}
.ground {
  stroke: var(--ivory-3);
}
.dot {
  cursor: pointer;
}
.touch {
  fill: transparent;
}
.ink {
  fill: var(--ink-1);
}
.here {
  stroke: var(--slate);
  stroke-width: 4;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 2.2rem minmax(0, 1fr) 2.4rem;
  }
  .name {
    grid-column: 1 / -1;
  }
  .word {
    display: inline;
  }
  .days {
    grid-template-columns: 2.2rem minmax(0, 1fr) auto;
  }
  .when {
    grid-column: 2;
  }
}
</style>
