<script setup lang="ts">
// Reps as beads on a rope: shape is the answer, height the level. Where a dip
// is usual the columns are hatched, bracketed and named.
import { computed, useId } from 'vue'
import AnswerShape from './AnswerShape.vue'
import type { Bead } from './beads'

const {
  beads,
  cycle = 4,
  ahead = 0,
  ink = false,
} = defineProps<{
  beads: Bead[]
  /** Answers in a cycle; 0: it has none. */
  cycle?: number
  /** Columns drawn beyond the last bead, so that a dip to come is seen. */
  ahead?: number
  ink?: boolean
}>()

const column = 44
const height = 132
const rope = 96
const perLevel = 7.5
const id = useId()

const columns = computed(() => Math.max(beads.length + ahead, 4))
const width = computed(() => columns.value * column)

interface Drawn extends Bead {
  x: number
  y: number
}

const drawn = computed<Drawn[]>(() =>
  beads.map((b, i) => ({ ...b, x: i * column + column / 2, y: rope - (b.level ?? 0) * perLevel })),
)

const counted = computed(() => beads.reduce((n, b) => Math.max(n, b.n), 0))

/** The columns that fall on a dip: as the rules counted, and ahead of the last. */
const dips = computed(() => {
  const at = new Set<number>()
  if (!cycle) return []
  beads.forEach((b, i) => b.dip && at.add(i))
  for (let i = 0; ahead > 0 && i < columns.value - beads.length; i++) {
    const n = counted.value + i + 1
    if (n % cycle === cycle - 1 || n % cycle === 0) at.add(beads.length + i)
  }
  const runs: { from: number; to: number }[] = []
  for (const i of [...at].sort((a, b) => a - b)) {
    const last = runs.at(-1)
    if (last && last.to === i - 1) last.to = i
    else runs.push({ from: i, to: i })
  }
  return runs
})

const says = computed(() => (beads.length === 0 ? 'No reps yet' : beads.map((b, i) => `${i + 1}: ${b.says}`).join(', ')))
</script>

<template>
  <div class="rope-scroll" tabindex="0" role="img" :aria-label="says">
    <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true">
      <defs>
        <pattern :id="id" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V8" class="hatch" />
        </pattern>
      </defs>
      <g v-for="d in dips" :key="d.from">
        <rect :x="d.from * column + 3" y="4" :width="(d.to - d.from + 1) * column - 6" :height="rope" :fill="`url(#${id})`" />
        <path :d="`M${d.from * column + 3} ${rope + 8}v6h${(d.to - d.from + 1) * column - 6}v-6`" class="bracket" />
        <text :x="((d.from + d.to + 1) / 2) * column" :y="height - 4" class="label strong">dip</text>
      </g>
      <path :d="`M0 ${rope}Q${width / 2} ${rope + 5} ${width} ${rope}`" class="rope" />
      <g v-for="b in drawn" :key="b.id" :class="{ waiting: b.waiting, out: b.n === 0 }">
        <path v-if="b.level" :d="`M${b.x} ${b.y}V${rope}`" class="stem" />
        <AnswerShape :answer="b.answer" :ink="ink" :x="b.x - 12" :y="b.y - 12" width="24" height="24" />
        <text v-if="b.level !== null" :x="b.x + 11" :y="b.y - 6" class="level">{{ b.level }}</text>
      </g>
      <template v-for="i in columns" :key="i">
        <text v-if="!dips.some((d) => i - 1 >= d.from && i - 1 <= d.to)" :x="(i - 0.5) * column" :y="height - 4" class="label">
          {{ i }}
        </text>
      </template>
    </svg>
  </div>
</template>

<style scoped>
.rope-scroll {
  overflow-x: auto;
  max-width: 100%;
}
svg {
  display: block;
  overflow: visible;
}
.hatch {
  stroke: var(--ink-3);
  stroke-width: 1.4;
  opacity: 0.5;
}
.bracket {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.rope {
  fill: none;
  stroke: var(--leather);
  stroke-width: 4;
}
.stem {
  stroke: var(--ink-1);
  stroke-width: 1.2;
}
.waiting {
  stroke-dasharray: 4 3;
}
.out {
  opacity: 0.55;
}
.label {
  font-size: var(--step-0);
  text-anchor: middle;
  fill: var(--ink-2);
}
.label.strong {
  font-weight: 700;
  fill: var(--ink-1);
}
.level {
  font-size: var(--step-0);
  font-weight: 700;
  fill: var(--ink-1);
}
</style>
