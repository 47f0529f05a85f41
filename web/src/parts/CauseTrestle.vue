<script setup lang="ts">
// A cause as a plank on a trestle. On the left lie the doubt that every cause
// begins with and what speaks against it, on the right what speaks for it; the
// plank tips by the score that the rules give, so that drawing and word agree.
import { computed } from 'vue'
import type { Schemas } from '../api/types'
import StoneShape from './StoneShape.vue'

const { cause, name } = defineProps<{ cause: Schemas['AssessCause']; name: string }>()
const emit = defineEmits<{ stone: [finding: string] }>()

const wide = 160
const middle = wide / 2
const deck = 31
const most = 12 // degrees, at a score of 0 or 1
const seen = computed(() => cause.score !== undefined)
const tilt = computed(() => (((cause.score ?? 0.5) - 0.5) / 0.5) * most)
/** A weight of one log odd is a stone of this many square pixels. */
const size = (weight: number) => 2.2 + 4.4 * Math.sqrt(Math.abs(weight))
const block = computed(() => 10 + 8 * cause.doubt)

interface Lying {
  finding: string
  says: string
  x: number
  r: number
  source: string
  against: boolean
}

/** Stones lie from the ends towards the middle, the largest outermost; what has no
 * room lies behind. */
function row(list: Schemas['AssessEvidence'][], from: number, way: 1 | -1, room: number): Lying[] {
  const lying: Lying[] = []
  let at = 0
  for (const e of list) {
    const r = size(e.weight)
    if (at + 2 * r > room) break
    lying.push({ finding: e.finding, says: e.says, x: from + way * (at + r), r, source: e.source, against: way === 1 })
    at += 2 * r + 1
  }
  return lying
}
const stones = computed(() => [
  ...row(cause.for, wide - 4, -1, middle - 12),
  ...row(cause.against, 6 + block.value, 1, middle - block.value - 14),
])
const says = computed(
  () =>
    `${name}: ${cause.belief}. For it: ${cause.for.map((e) => `${e.says}, ${e.source}`).join('; ') || 'nothing'}. Against it: ${
      cause.against.map((e) => `${e.says}, ${e.source}`).join('; ') || 'nothing'
    }.`,
)
</script>

<template>
  <svg :viewBox="`0 0 ${wide} 50`" :width="wide" height="50" class="trestle" role="img" :aria-label="says">
    <template v-if="!seen">
      <path :d="`M2 ${deck + 3}H${wide - 2}`" class="unseen" />
      <path :d="`M${middle} ${deck + 5}l8 14h-16z`" class="unseen" />
    </template>
    <template v-else>
      <path :d="`M${middle} ${deck + 5}l10 14h-20z`" class="foot" />
      <g :transform="`rotate(${tilt.toFixed(2)} ${middle} ${deck + 5})`">
        <rect x="2" :y="deck" :width="wide - 4" height="6.5" class="board" />
        <rect x="5" :y="deck - 11" :width="block" height="11" class="doubt" />
        <g
          v-for="s in stones"
          :key="s.finding"
          :transform="`translate(${s.x.toFixed(1)} ${deck})`"
          class="pick"
          @click.stop="emit('stone', s.finding)"
        >
          <title>{{ s.says }}, {{ s.source }}</title>
          <StoneShape :r="s.r" :source="s.source" :against="s.against" />
        </g>
      </g>
    </template>
  </svg>
</template>

<style scoped>
.trestle {
  display: block;
  flex: none;
  overflow: visible;
}
.board {
  fill: var(--ivory-1);
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.doubt {
  fill: var(--ivory-3);
  stroke: var(--ink-1);
  stroke-width: 1.2;
}
.foot {
  fill: var(--ink-1);
}
.unseen {
  fill: none;
  stroke: var(--ink-2);
  stroke-width: 1.8;
  stroke-dasharray: 6 4;
}
.pick {
  cursor: pointer;
}
@media (forced-colors: active) {
  .board,
  .doubt,
  .unseen {
    stroke: CanvasText;
  }
  .foot {
    fill: CanvasText;
  }
}
</style>
