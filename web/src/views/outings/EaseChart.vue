<script setup lang="ts">
// Each outing is a rope thrown from the yard: thick as far as the horse is at ease, thin
// to where they turned, a cross where it broke.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { distance, fromUnit, toUnit } from '../../lengths'
import { dayMonth } from '../../words'

const { list } = defineProps<{ list: Schemas['Outing'][] }>()
const most = 14
const rows = computed(() => list.slice(-most).filter((o) => o.metres))
const far = computed(() => Math.max(100, ...rows.value.map((o) => o.metres ?? 0)))
const width = 640
const from = 70
const x = (metres: number) => from + (metres / far.value) * (width - from - 150)
const line = 34
const marks = computed(() => [0.25, 0.5, 0.75, 1].map((s) => fromUnit(Math.round((toUnit(far.value) * s) / 10) * 10)))
</script>

<template>
  <p v-if="rows.length === 0" class="quiet">How far the way out is was not known. Give it when the next one is planned.</p>
  <svg
    v-else
    :viewBox="`0 0 ${width} ${rows.length * line + 34}`"
    role="img"
    aria-label="How far it is at ease, outing by outing; the table below has the numbers"
  >
    <g v-for="m in marks" :key="m">
      <line :x1="x(m)" :x2="x(m)" y1="0" :y2="rows.length * line + 6" class="grid" />
      <text :x="x(m)" :y="rows.length * line + 24" class="metre">{{ distance(m) }}</text>
    </g>
    <text :x="from" :y="rows.length * line + 24" class="metre">yard</text>
    <g v-for="(o, i) in rows" :key="i">
      <text x="0" :y="i * line + 22" class="day" :class="{ newest: i === rows.length - 1 }">{{ dayMonth(o.on ?? '') }}</text>
      <line :x1="from" :x2="x(o.metres ?? 0)" :y1="i * line + 17" :y2="i * line + 17" class="thin" />
      <line
        v-if="o.comfort"
        :x1="from"
        :x2="x(Math.min(o.comfort, o.metres ?? 0))"
        :y1="i * line + 17"
        :y2="i * line + 17"
        class="rope"
      />
      <path v-if="o.comfort" :d="`M${x(Math.min(o.comfort, o.metres ?? 0)) - 5} ${i * line + 4}h10v14l-5 9l-5 -9z`" class="peg" />
      <path
        v-for="s in (o.stops ?? []).filter((y) => !y.stood)"
        :key="s.n"
        :d="`M${x(s.metres ?? 0) - 6} ${i * line + 11}l12 12M${x(s.metres ?? 0) + 6} ${i * line + 11}l-12 12`"
        class="cross"
      />
      <text :x="x(o.metres ?? 0) + 12" :y="i * line + 22" class="says">
        {{ o.comfort ? distance(o.comfort) : 'not yet' }}
        <tspan class="quiet">&#160; {{ o.broken }} of {{ (o.stops ?? []).length }} broke</tspan>
      </text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
}
.grid {
  stroke: var(--ivory-3);
}
.thin {
  stroke: var(--leather);
  stroke-width: 2;
}
.rope {
  stroke: var(--leather);
  stroke-width: 9;
}
.peg {
  fill: var(--ivory-0);
  stroke: var(--ink-1);
  stroke-width: 2;
}
.cross {
  stroke: var(--rust);
  stroke-width: 3;
}
text {
  font: 14px var(--font-ui);
  fill: var(--ink-1);
}
.metre {
  text-anchor: middle;
  font-size: 12.5px;
}
.newest,
.says {
  font-weight: 700;
}
.quiet {
  font-weight: 400;
  fill: var(--ink-2);
}
</style>
