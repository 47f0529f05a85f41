<script setup lang="ts" generic="T extends string">
// A horse to touch: a tap anywhere takes the place nearest to it. Each place is a
// button too, by its name.
import { sideWord } from '../words'
import HorseOutline from './HorseOutline.vue'
import { nearest, onSide } from './horsePlaces'

const { side, spots, chosen, says } = defineProps<{
  side: 'near' | 'off'
  spots: Record<T, readonly [number, number] | undefined>
  chosen?: string
  /** A place's name, with what is known of it. */
  says: (place: T) => string
}>()
const emit = defineEmits<{ touch: [place: T] }>()

const there = () => (Object.keys(spots) as T[]).filter((key) => spots[key])
const at = (key: T) => onSide(side, spots[key] ?? [0, 0])

function touched(e: MouseEvent) {
  const svg = (e.currentTarget as Element).querySelector('svg')
  const turn = svg?.getScreenCTM()?.inverse()
  if (!turn) return
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(turn)
  const [x, y] = onSide(side, [p.x, p.y])
  const place = nearest(spots, x, y)
  if (place) emit('touch', place)
}
</script>

<template>
  <figure @click="touched">
    <figcaption>{{ sideWord(side) }}</figcaption>
    <HorseOutline :side="side">
      <g
        v-for="key in there()"
        :key="key"
        :transform="`translate(${at(key).join(' ')})`"
        class="spot"
        :class="{ chosen: chosen === key }"
        role="button"
        tabindex="0"
        :aria-label="says(key)"
        :aria-pressed="chosen === key"
        @keydown.enter.prevent="emit('touch', key)"
        @keydown.space.prevent="emit('touch', key)"
      >
        <circle r="22" class="target" />
        <slot :place="key"><circle r="6" class="dot" /></slot>
      </g>
    </HorseOutline>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
  cursor: pointer;
}
figcaption {
  font: 700 var(--step-2) var(--font-head);
}
.target {
  fill: transparent;
}
.dot {
  fill: var(--ivory-0);
  stroke: var(--ink-1);
  stroke-width: 2;
}
.spot:focus-visible {
  outline: none;
}
.spot.chosen .target,
.spot:focus-visible .target {
  stroke: var(--slate);
  stroke-width: 4;
}
.spot.chosen .dot {
  fill: var(--ink-1);
}
</style>
