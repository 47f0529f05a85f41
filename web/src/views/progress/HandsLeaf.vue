<script setup lang="ts">
// How releases came, person by person: a board for all of them, filled by those on the
// try, and a dot a session. Told to that person and the lead trainer alone.
import type { Schemas } from '../../api/types'
import { dayMonth } from '../../words'
import { across, tall, up, wide } from './trendRow'

const { hands, days } = defineProps<{ hands: Schemas['ProgressHand'][]; days: string[] }>()

const board = 240
const part = (n: number, of: number) => (of > 0 ? (n / of) * board : 0)
</script>

<template>
  <section class="hands">
    <h2 class="lead">Timing of the hands</h2>
    <p class="quiet">
      A release on the try is what teaches. Each person sees their own; the lead trainer sees all. It is a thing to practise.
    </p>
    <article v-for="h in hands" :key="h.person">
      <h3>{{ h.name || 'Somebody' }}</h3>
      <p>{{ h.says.text }}</p>
      <svg
        :viewBox="`0 0 ${board} 16`"
        class="board"
        role="img"
        :aria-label="`${h.on_try.some} on the try, ${h.late} late, ${h.wrong} at the wrong moment`"
      >
        <rect width="240" height="14" class="all" />
        <rect :width="part(h.on_try.some, h.of)" height="14" class="on" />
        <rect :x="board - part(h.wrong, h.of)" :width="part(h.wrong, h.of)" height="14" class="wrong" />
      </svg>
      <p class="small">{{ h.on_try.some }} on the try, {{ h.late }} late, {{ h.wrong }} at the wrong moment</p>
      <p v-if="h.from_one.of" class="small">{{ h.from_one.some }} of {{ h.from_one.of }} asks began at 1.</p>
      <figure v-if="h.points.length > 1">
        <svg
          :viewBox="`0 0 ${wide} ${tall}`"
          role="img"
          :aria-label="h.points.map((p) => `session ${p.x}: ${p.y} of 100`).join(', ')"
        >
          <path :d="`M0 ${tall - 1}H${wide}M0 ${up(80, 100)}H${wide}`" class="ground" />
          <circle v-for="p in h.points" :key="p.x" :cx="across(p.x, days.length)" :cy="up(p.y, 100)" r="4" />
        </svg>
        <figcaption class="row between small">
          <span>{{ dayMonth(days[0] ?? '') }}</span> <span>the line: eight of ten on the try</span>
          <span>{{ dayMonth(days.at(-1) ?? '') }}</span>
        </figcaption>
      </figure>
    </article>
  </section>
</template>

<style scoped>
.hands {
  display: grid;
  gap: var(--gap-3);
  padding: var(--gap-3) 0;
  max-width: var(--measure);
}
article {
  display: grid;
  gap: var(--gap-1);
  padding-top: var(--gap-2);
  border-top: var(--line);
}
.board,
figure {
  width: min(100%, 360px);
  margin: 0;
}
.all {
  fill: var(--ivory-2);
  stroke: var(--ink-2);
}
.on {
  fill: var(--pasture);
}
.wrong {
  fill: var(--rust);
}
.ground {
  stroke: var(--ivory-3);
}
circle {
  fill: var(--ink-1);
}
</style>
