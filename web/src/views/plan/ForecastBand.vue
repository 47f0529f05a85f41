<script setup lang="ts">
// The chance of being done, day by day, with the band that holds four of five
// such horses, and the date as a post.
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/types'
import { shortDate } from '../../words'

const { forecast, today, by } = defineProps<{ forecast: Schemas['PlanGoalForecast']; today: string; by: string }>()

const box = useTemplateRef('box')
const { width: measured } = useElementSize(box, { width: 640, height: 0 })
const width = computed(() => Math.max(measured.value, 280))
const top = 30
const ground = 150
const edge = 14

const day = (date: string) => Date.parse(`${date}T00:00:00Z`) / 86_400_000
const last = computed(() => forecast.curve[forecast.curve.length - 1]?.on ?? today)
const x = (date: string) => {
  const span = Math.max(day(last.value) - day(today), 1)
  return edge + ((day(date) - day(today)) / span) * (width.value - 2 * edge)
}
const y = (p: number) => ground - p * (ground - top)

const line = computed(() => forecast.curve.map((c) => `${x(c.on).toFixed(1)} ${y(c.p).toFixed(1)}`).join('L'))
const area = computed(() => `M${x(today)} ${ground}L${line.value}L${x(last.value)} ${ground}z`)
const days = computed(() => forecast.days)
const anchor = (date: string) => (x(date) > width.value - 90 ? 'end' : x(date) < 90 ? 'start' : 'middle')
const close = computed(() => {
  const d = days.value
  return d ? x(d.high) - x(d.low) < 190 : false
})
</script>

<template>
  <figure ref="box" class="band">
    <svg :viewBox="`0 0 ${width} 224`" :width="width" height="224" role="img" :aria-label="forecast.says.text">
      <path :d="area" class="area" />
      <path :d="`M${line}`" class="line" />
      <path :d="`M${edge} ${y(0.85)}H${width - edge}`" class="enough" />
      <text :x="edge" :y="y(0.85) - 4" class="label quiet">85 %, on course</text>
      <path :d="`M${edge} ${ground}H${width - edge}`" class="ground" />
      <text :x="edge" :y="ground + 16" class="label">today</text>
      <template v-if="days">
        <rect :x="x(days.low)" :y="ground + 24" :width="Math.max(x(days.high) - x(days.low), 4)" height="14" class="span" />
        <path :d="`M${x(days.median)} ${ground + 20}v22`" class="middle" />
        <text :x="x(days.low)" :y="ground + 54" class="label" :text-anchor="anchor(days.low)">
          {{ shortDate(days.low) }}
          <tspan v-if="close">to {{ shortDate(days.high) }}</tspan>
        </text>
        <text v-if="!close" :x="x(days.high)" :y="ground + 54" class="label" :text-anchor="anchor(days.high)">
          {{ shortDate(days.high) }}
        </text>
        <text :x="x(days.median)" :y="ground + 69" class="label strong" :text-anchor="anchor(days.median)">
          half by {{ shortDate(days.median) }}
        </text>
      </template>
      <template v-if="by && by <= last">
        <path :d="`M${x(by)} ${ground + 12}V${top - 8}`" class="post" />
        <path
          :d="`M${x(by)} ${top - 8}h${anchor(by) === 'end' ? -16 : 16}l-4 6 4 6h${anchor(by) === 'end' ? 16 : -16}z`"
          class="flag"
        />
        <text :x="x(by)" y="14" class="label strong" :text-anchor="anchor(by)">needed {{ shortDate(by) }}</text>
        <circle :cx="x(by)" :cy="y(forecast.p)" r="5" class="now" />
      </template>
    </svg>
    <details class="small">
      <summary>The same as a table</summary>
      <table>
        <thead>
          <tr>
            <th scope="col">By</th>
            <th scope="col">Chance that it is done</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in forecast.curve" :key="c.on">
            <td>{{ shortDate(c.on) }}</td>
            <td>{{ Math.round(c.p * 100) }} %</td>
          </tr>
        </tbody>
      </table>
    </details>
  </figure>
</template>

<style scoped>
.band {
  margin: 0;
  min-width: 0;
}
svg {
  display: block;
  max-width: 100%;
}
.area {
  fill: var(--ivory-2);
}
.line {
  fill: none;
  stroke: var(--pasture-deep);
  stroke-width: 2.5;
}
.enough {
  stroke: var(--ink-2);
  stroke-dasharray: 2 5;
}
.ground {
  stroke: var(--ink-1);
  stroke-width: 2;
}
.span {
  fill: var(--pasture);
}
.middle {
  stroke: var(--ink-1);
  stroke-width: 3;
}
.post {
  stroke: var(--leather);
  stroke-width: 2.5;
}
.flag {
  fill: var(--leather);
}
.now {
  fill: var(--ivory-0);
  stroke: var(--ink-1);
  stroke-width: 2.5;
}
.label {
  font-size: var(--step-0);
  fill: var(--ink-1);
}
.label.quiet {
  fill: var(--ink-2);
}
.label.strong {
  font-weight: 700;
}
summary {
  cursor: pointer;
  min-height: 28px;
}
th,
td {
  text-align: left;
  padding: 2px var(--gap-3) 2px 0;
}
</style>
