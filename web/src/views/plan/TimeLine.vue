<script setup lang="ts">
// Will the date be met, and what would help: boards filled from below, one a visit,
// and a rope for each lever, on one line of time with one post for the date. A
// lever is tried by a tap on its row; the boards as they were stay as outlines.
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/types'
import FlagPost from '../../parts/FlagPost.vue'
import RopeSpan from '../../parts/RopeSpan.vue'
import { dayMonth } from '../../words'
import { along, ticks } from './timeLine'

type Goal = Schemas['PlanGoalForecast']
type Help = Schemas['PlanHelp']

const { goal, kept, today, busy, pace } = defineProps<{
  goal: Goal
  /** As it is without what is tried. */
  kept: Goal
  today: string
  busy: boolean
  pace: string
}>()
const emit = defineEmits<{ pull: [h: Help] }>()

const axis = useTemplateRef('axis')
const { width } = useElementSize(axis, { width: 270, height: 0 })

const till = computed(() => [goal.till ?? '', kept.till ?? ''].sort().at(-1) ?? '')
const x = computed(() => along(today, till.value, Math.max(width.value, 120)))
const tried = computed(() => goal !== kept)
const levers = computed(() => kept.help.filter((h) => h.best))
const top = 32
const ground = 90
const fill = (p: number) => p * (ground - top)
const step = computed(() => {
  const [a, b] = goal.boards
  return a && b ? x.value(b.on) - x.value(a.on) : 20
})
const wide = computed(() => Math.min(14, Math.max(step.value * 0.8, 2)))
const post = computed(() => (goal.by ? x.value(goal.by) : undefined))
const marks = computed(() => {
  const d = goal.days
  if (!d) return []
  const list = [
    { at: x.value(d.low), says: '1 in 10' },
    { at: x.value(d.median), says: 'half' },
    { at: x.value(d.high), says: '9 in 10' },
  ]
  return list.filter((m, i) => i === 0 || m.at - (list[i - 1]?.at ?? 0) > 42)
})
const percent = (p: number) => Math.round(p * 100)
const says = computed(() => `${goal.says.text} ${goal.boards.map((b) => `${dayMonth(b.on)} ${percent(b.p)} %`).join(', ')}`)
</script>

<template>
  <div class="line" :aria-busy="busy">
    <div class="boards">
      <div class="chance">
        <p v-if="goal.word" class="big">
          <b class="number">{{ percent(goal.p) }} %</b> <b class="word">{{ goal.word }}</b>
        </p>
        <p v-if="goal.word" class="small quiet">{{ pace }}</p>
        <p :class="goal.word ? 'small quiet' : 'strong'">{{ goal.short.text }}</p>
      </div>
      <div ref="axis" class="axis">
        <svg v-if="goal.boards.length" :viewBox="`0 0 ${width} 108`" :width="width" height="108" role="img" :aria-label="says">
          <g v-for="b in goal.boards" :key="b.on">
            <rect
              :x="x(b.on) - wide / 2"
              :y="ground - fill(b.p)"
              :width="wide"
              :height="fill(b.p)"
              class="fill"
              :class="{ late: goal.by && b.on > goal.by }"
            />
            <rect
              :x="x(b.on) - wide / 2"
              :y="top"
              :width="wide"
              :height="ground - top"
              class="frame"
              :class="{ late: goal.by && b.on > goal.by }"
            />
          </g>
          <template v-if="tried">
            <rect
              v-for="b in kept.boards"
              :key="`was ${b.on}`"
              :x="x(b.on) - wide / 2"
              :y="ground - fill(b.p)"
              :width="wide"
              :height="fill(b.p)"
              class="was"
            />
          </template>
          <path :d="`M0 ${ground + 1}H${width}`" class="ground" />
          <text v-for="m in marks" :key="m.says" :x="m.at" :y="top - 4" class="tick">{{ m.says }}</text>
          <text x="2" y="105" class="tick start">today</text>
          <text v-for="t in ticks(today, till, 2)" :key="t" :x="x(t)" y="105" class="tick">{{ dayMonth(t) }}</text>
          <template v-if="post !== undefined">
            <FlagPost :x="post" :top="1" :foot="108" :wide="20" />
            <text :x="post > width - 70 ? post - 6 : post + 26" y="12" class="date" :class="{ before: post > width - 70 }">
              {{ dayMonth(goal.by ?? '') }}
            </text>
          </template>
        </svg>
      </div>
    </div>
    <RouterLink v-if="levers[0]" :to="{ query: { see: 'numbers' } }" aria-current-value="false" class="more no-print">
      <b>What would help</b> <span class="quiet">{{ levers[0].says.text }}</span>
    </RouterLink>
    <ul v-if="levers.length" class="levers" aria-label="What would help">
      <li v-for="h in levers" :key="h.kind">
        <button type="button" class="lever" :disabled="busy" @click="emit('pull', h)">
          <span class="name"
            ><span class="visually-hidden">Try it: </span><b>{{ h.name.text }}</b>
            <span v-if="h.waits" class="quiet">{{ h.waits.text }}</span></span
          >
          <svg :viewBox="`0 0 ${width} 34`" :width="width" height="34" aria-hidden="true" class="rope">
            <RopeSpan v-if="h.days" :from="x(h.days.low)" :to="x(h.days.high)" :ring="x(h.days.median)" :y="17" />
            <path v-if="post !== undefined" :d="`M${post} -11V45`" class="post" />
            <FlagPost v-if="h.by" :x="x(h.by)" :top="5" :foot="32" :wide="12" />
          </svg>
          <span class="comes"
            ><b>{{ percent(h.p) }} %</b> {{ h.word }}</span
          >
          <span class="try">try</span>
        </button>
      </li>
    </ul>
    <div v-else-if="goal.days && goal.remaining" class="lever still">
      <span class="name"><b>As planned</b></span>
      <svg :viewBox="`0 0 ${width} 34`" :width="width" height="34" aria-hidden="true" class="rope">
        <RopeSpan :from="x(goal.days.low)" :to="x(goal.days.high)" :ring="x(goal.days.median)" :y="17" />
        <path v-if="post !== undefined" :d="`M${post} -11V45`" class="post" />
      </svg>
      <span class="comes">{{ dayMonth(goal.days.low) }} to {{ dayMonth(goal.days.high) }}</span>
    </div>
    <p v-if="goal.boards.length" class="small quiet key">
      Board: the chance by that visit. Rope: from one in ten to nine in ten. Ring: half.
    </p>
  </div>
</template>

<style scoped>
.boards,
.lever {
  display: grid;
  grid-template-columns: minmax(0, 166px) minmax(0, 1fr) minmax(0, 114px) 28px;
  align-items: center;
  gap: 0 var(--gap-2);
  width: 100%;
}
.axis {
  min-width: 0;
}
.rope,
.axis svg {
  overflow: visible;
}
.axis svg,
.rope {
  display: block;
  max-width: 100%;
}
.big {
  white-space: nowrap;
}
.number {
  font: 700 1.875rem/1.1 var(--font-head);
}
.word {
  margin-left: var(--gap-2);
  font-size: 1rem;
}
.fill {
  fill: var(--pasture);
}
.frame {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.2;
}
.fill.late {
  fill: var(--pasture-pale);
}
.frame.late {
  stroke: var(--ivory-3);
}
.was {
  fill: none;
  stroke: var(--leather);
  stroke-width: 1.6;
  stroke-dasharray: 3 2;
}
.ground {
  stroke: var(--ink-1);
  stroke-width: 1.6;
}
.tick {
  font-size: var(--step-0);
  text-anchor: middle;
  fill: var(--ink-2);
}
.tick {
  paint-order: stroke;
  stroke: var(--ivory-0);
  stroke-width: 4px;
}
.tick.start {
  text-anchor: start;
}
.date {
  font-size: var(--step-1);
  font-weight: 700;
}
.date.before {
  text-anchor: end;
}
.post {
  stroke: var(--ink-1);
  stroke-width: 2.4;
}
.lever {
  min-height: 34px;
  padding: 0;
  background: none;
  border: 0;
  border-top: var(--line);
  text-align: left;
  cursor: pointer;
  line-height: 1.2;
}
.more {
  display: none;
}
.still {
  cursor: default;
}
.lever:hover .try {
  text-decoration-thickness: 2px;
}
.comes {
  text-align: right;
  white-space: nowrap;
}
.comes b {
  font-size: 1rem;
}
.try {
  color: var(--slate);
  font-weight: 600;
  text-decoration: underline;
  text-align: right;
}
.key {
  position: relative;
  background: var(--ivory-0);
  border-top: var(--line);
  padding-top: 3px;
}
@media (max-width: 1100px) {
  .lever {
    min-height: var(--hand);
  }
}
@media screen and (max-width: 720px) {
  .boards,
  .lever {
    grid-template-columns: minmax(0, 1fr) auto 30px;
  }
  .boards .axis,
  .lever .rope {
    grid-column: 1 / -1;
  }
  .boards .chance {
    grid-column: 1 / -1;
  }
  .levers,
  .key {
    display: none;
  }
  .more {
    display: grid;
    min-height: 56px;
    align-content: center;
    border-top: var(--line);
    color: var(--ink-1);
    text-decoration: none;
  }
  .more b {
    text-decoration: underline;
  }
  .lever {
    padding: 8px 0 0;
  }
  .lever .rope {
    grid-row: 2;
  }
}
@media (forced-colors: active) {
  .fill {
    fill: CanvasText;
  }
  .frame,
  .was,
  .ground,
  .post {
    stroke: CanvasText;
  }
}
@media print {
  .try {
    display: none;
  }
  .fill {
    print-color-adjust: exact;
  }
}
</style>
