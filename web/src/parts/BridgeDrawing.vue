<script setup lang="ts">
// A problem as a bridge from before to goal: planks are the ladder's steps,
// piers the foundations under it.
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../api/types'
import { secure } from '../words'
import { pieces, type Piece } from './plank'
import PlankShape from './PlankShape.vue'

type Plank = Schemas['ProgressPlank']

const {
  bridge,
  before = '',
  goal = '',
  choosable = false,
} = defineProps<{
  bridge: Schemas['ProgressBridge']
  before?: string
  goal?: string
  /** A tap on a plank makes it the one where the goal is reached. */
  choosable?: boolean
}>()
const emit = defineEmits<{ end: [step: string] }>()

const box = useTemplateRef('box')
const { width: measured } = useElementSize(box, { width: 720, height: 0 })

const plankHeight = 22
const rise = 62
const deck = 150
const water = 268
const narrow = 44

const width = computed(() => Math.max(measured.value, 280))
const bank = computed(() => (width.value < 560 ? 26 : 52))
const pitch = computed(() => (width.value - 2 * bank.value) / Math.max(bridge.planks.length, 1))
const steep = computed(() => pitch.value < narrow)

interface Drawn {
  plank: Plank
  x: number
  y: number
  angle: number
  width: number
  pieces: Piece[]
}

/** The arch: highest in the middle. */
const arch = (x: number) => {
  const t = (2 * x) / width.value - 1
  return deck - rise * (1 - t * t)
}

const planks = computed<Drawn[]>(() =>
  bridge.planks.map((plank, i) => {
    const x = bank.value + pitch.value * (i + 0.5)
    const slope = ((arch(x + 4) - arch(x - 4)) / 8) * (180 / Math.PI)
    return { plank, x, y: arch(x), angle: slope, width: pitch.value - 4, pieces: pieces(plank.parts, !!plank.blocked) }
  }),
)

const piers = computed<Drawn[]>(() =>
  bridge.piers.map((plank, i) => {
    const span = width.value - 2 * bank.value
    const x = bank.value + (span * (i + 0.5)) / bridge.piers.length
    return {
      plank,
      x,
      y: arch(x) + plankHeight / 2 + 4,
      angle: 0,
      width: Math.min(30, span / bridge.piers.length - 8),
      pieces: pieces(plank.parts, !!plank.blocked),
    }
  }),
)

function stateOf(p: Plank): string {
  const beyond = p.beyond ? 'beyond the goal, ' : ''
  return beyond + (p.blocked ? `blocked. ${p.blocked.text}` : p.says.text)
}
/** The last plank before what lies beyond the goal. */
const last = computed(() => bridge.planks.filter((p) => !p.beyond).at(-1)?.step)

const short = computed(() => `${bridge.name}: ${secure(bridge)}${bridge.blocked ? `, ${bridge.blocked} blocked` : ''}.`)
</script>

<template>
  <figure ref="box" class="bridge">
    <svg :viewBox="`0 0 ${width} 320`" :width="width" height="320" :role="choosable ? 'group' : 'img'" :aria-label="short">
      <path
        :d="`M${bank - 6} ${water}q${(width - 2 * bank) / 4} -10 ${(width - 2 * bank) / 2} 0t${(width - 2 * bank) / 2 + 12} 0V314H${bank - 6}z`"
        class="water"
      />
      <path :d="`M0 ${deck - 2}L${bank * 0.7} ${arch(bank) + 4}H${bank - 3}V314H0z`" class="bank" />
      <path :d="`M${width} ${deck - 2}L${width - bank * 0.7} ${arch(bank) + 4}H${width - bank + 3}V314H${width}z`" class="bank" />
      <g v-for="p in piers" :key="p.plank.step">
        <path
          :d="`M${p.x - p.width / 2 + 3} ${p.y}h${p.width - 6}l4 ${water + 8 - p.y}h${-p.width - 2}z`"
          class="pier"
          :class="p.plank.blocked ? 'blocked' : p.plank.state"
        />
        <g :transform="`translate(${p.x - p.width / 2} ${water - 26})`">
          <g v-for="piece in p.pieces" :key="piece.x" :transform="`translate(${piece.x * p.width} 0)`">
            <PlankShape :state="piece.state" :width="piece.width * p.width" :height="16" />
          </g>
        </g>
        <text :x="p.x" :y="steep ? 296 : 294" class="label" :class="{ tight: steep }">{{ p.plank.name }}</text>
      </g>
      <g
        v-for="p in planks"
        :key="p.plank.step"
        :class="{ beyond: p.plank.beyond, choosable }"
        :role="choosable ? 'button' : undefined"
        :tabindex="choosable ? 0 : undefined"
        :aria-label="choosable ? `The goal is reached at ${p.plank.name}` : undefined"
        :aria-pressed="choosable ? p.plank.step === last : undefined"
        @click="choosable && emit('end', p.plank.step)"
        @keydown.enter="choosable && emit('end', p.plank.step)"
      >
        <g :transform="`translate(${p.x} ${p.y}) rotate(${p.angle}) translate(${-p.width / 2} ${-plankHeight / 2})`">
          <g v-for="piece in p.pieces" :key="piece.x" :transform="`translate(${piece.x * p.width} 0)`">
            <PlankShape :state="piece.state" :width="piece.width * p.width" :height="plankHeight" />
          </g>
        </g>
        <text
          v-if="steep"
          :transform="`translate(${p.x + 4} ${p.y - 17}) rotate(-62)`"
          class="label slanted"
          :class="{ next: p.plank.next }"
        >
          {{ p.plank.name }}
        </text>
        <text v-else :x="p.x" :y="p.y - 18 - Math.abs(p.angle) / 2" class="label" :class="{ next: p.plank.next }">
          {{ p.plank.name }}
        </text>
        <g v-if="p.plank.next && !steep">
          <path :d="`M${p.x - 7} ${p.y - 46}h14l-7 9z`" class="mark" />
          <text :x="p.x" :y="p.y - 51" class="label marked">next</text>
        </g>
        <path v-else-if="p.plank.next" :d="`M${p.x} ${p.y + 14}l6 10h-12z`" class="mark" />
      </g>
    </svg>
    <figcaption v-if="goal" class="ends">
      <div class="end">
        <span class="quiet small">Before</span>
        <span>{{ before || 'not written down' }}</span>
      </div>
      <div class="end right">
        <span class="quiet small">Goal</span>
        <span>{{ goal }}</span>
      </div>
    </figcaption>
    <ol class="visually-hidden">
      <li v-for="p in bridge.planks" :key="p.step">{{ p.name }}: {{ stateOf(p) }}{{ p.next ? ', next' : '' }}</li>
      <li v-for="p in bridge.piers" :key="p.step">foundation {{ p.name }}: {{ stateOf(p) }}</li>
    </ol>
  </figure>
</template>

<style scoped>
.bridge {
  margin: 0;
  min-width: 0;
}
svg {
  display: block;
  max-width: 100%;
}
.water {
  fill: #dde6e6;
}
.bank {
  fill: var(--ivory-2);
}
.pier {
  fill: var(--ivory-0);
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.pier.untried {
  stroke-dasharray: 5 4;
}
.pier.met,
.pier.kept {
  stroke: var(--pasture-deep);
  stroke-width: 2.5;
}
.pier.slipped {
  stroke: var(--rust);
  stroke-width: 2.5;
}
.label {
  font-size: var(--step-0);
  text-anchor: middle;
  fill: var(--ink-1);
}
.label.tight {
  font-size: 0.75rem;
}
.label.slanted {
  text-anchor: start;
}
.label.next {
  font-weight: 700;
}
.label.marked {
  font-weight: 700;
  fill: var(--leather);
}
.mark {
  fill: var(--leather);
}
.beyond {
  opacity: 0.35;
}
.choosable {
  cursor: pointer;
}
.ends {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-4);
  margin-top: var(--gap-2);
}
.end {
  display: grid;
  max-width: 46%;
  font-weight: 600;
}
.end .quiet {
  font-weight: 400;
}
.right {
  text-align: right;
}
</style>
