<script setup lang="ts">
// The rope: press anywhere in the column, it begins at 1; slide up to build,
// down to ease; let go when you let go. One level of travel is one level as it
// is drawn, at every size; a press on a printed number means that number.
import { computed, ref, useTemplateRef } from 'vue'

const { on, level, seconds, feel, interrupted, draft, tried, stays } = defineProps<{
  on: boolean
  level: number
  seconds: number
  feel: string
  interrupted: boolean
  /** Held and let go, or tapped, and not answered yet. */
  draft: boolean
  tried: boolean
  /** The hold goes on when the thumb leaves: a second press lets go. */
  stays: boolean
}>()
const emit = defineEmits<{ press: [level: number]; build: [level: number]; letGo: []; lost: [] }>()

const perLevel = 34
const top = 10
const numbers = 52 // from the left edge of the drawing: there the numbers are
const picture = useTemplateRef<SVGSVGElement>('picture')
const pointer = ref<number>()
let from = 0
let levelFrom = 1

/** A place on the screen as the drawing has it. */
function drawn(e: PointerEvent): { x: number; y: number } | undefined {
  const matrix = picture.value?.getScreenCTM()
  return matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()) : undefined
}

/** The number that is printed where the rope was pressed. */
function printed(at: { x: number; y: number }): number | undefined {
  const level = 10 - Math.floor((at.y - top) / perLevel)
  return at.x >= 0 && at.x < numbers && level >= 1 && level <= 10 ? level : undefined
}

function down(e: PointerEvent) {
  if (pointer.value !== undefined || e.button > 0) return
  if (stays && on && !interrupted) {
    emit('letGo')
    return
  }
  pointer.value = e.pointerId
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  const at = drawn(e)
  from = at?.y ?? 0
  levelFrom = (at && printed(at)) ?? (on ? level : 1)
  emit('press', levelFrom)
}

function move(e: PointerEvent) {
  if (e.pointerId !== pointer.value) return
  const at = drawn(e)
  if (!at) return
  const level = levelFrom + Math.round((from - at.y) / perLevel)
  emit('build', Math.min(Math.max(level, 1), 10))
}

function up(e: PointerEvent) {
  if (e.pointerId !== pointer.value) return
  pointer.value = undefined
  if (!stays) emit('letGo')
}

/** The phone took the touch away: the hold goes on until it is let go. */
function cancel(e: PointerEvent) {
  if (e.pointerId !== pointer.value) return
  pointer.value = undefined
  emit('lost')
}

const height = top + 10 * perLevel + 30
const y = (l: number) => top + (10 - l) * perLevel
const says = computed(() => {
  if (stays && on) return 'held: press again to let go'
  if (stays && !draft) return 'press, slide to the level, take the thumb away: it stays'
  if (interrupted) return 'The touch was taken away. The rope is still held: press again, or tap the answer.'
  if (on) return tried ? 'try seen' : 'held: tap the answer or let go'
  return draft ? 'now tap the answer' : 'press anywhere, slide up'
})
</script>

<template>
  <div
    class="rope"
    :class="{ on }"
    @pointerdown.prevent="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="cancel"
    @contextmenu.prevent
  >
    <p class="level" aria-live="polite">
      <b>{{ on || draft ? level : '' }}</b> <span>{{ on || draft ? feel : '' }}</span>
    </p>
    <svg ref="picture" :viewBox="`0 0 160 ${height}`" class="picture" role="img" :aria-label="`Rope, level ${level}`">
      <path :d="`M86 ${top + 18}V${height - 20}`" class="slack" />
      <path v-if="level > 0" :d="`M86 ${y(level) + perLevel / 2}V${height - 20}`" class="tight" />
      <g v-for="l in 10" :key="l">
        <path :d="`M56 ${y(l)}q15 7 30 0t30 0`" class="lay" />
        <text x="30" :y="y(l) + perLevel / 2 + 5" class="number" :class="{ reached: l === level }" :data-level="l">{{ l }}</text>
      </g>
      <template v-if="on || draft">
        <circle cx="86" :cy="y(Math.max(level, 1)) + perLevel / 2" r="34" class="thumb" />
        <text x="86" :y="y(Math.max(level, 1)) + perLevel / 2 + 6" class="seconds">{{ seconds.toFixed(1) }} s</text>
      </template>
    </svg>
    <p class="says" role="status">{{ says }}</p>
  </div>
</template>

<style scoped>
.rope {
  background: var(--ivory-1);
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  justify-items: center;
  padding: var(--gap-2) var(--gap-3);
  min-height: 0;
  height: 100%;
  touch-action: none;
  user-select: none;
  -webkit-user-select: none;
  cursor: grab;
}
.rope.on {
  background: var(--ivory-2);
  cursor: grabbing;
}
.level {
  min-height: var(--step-5);
  font: 700 var(--step-2) / 1 var(--font-head);
}
.level b {
  font-size: var(--step-5);
}
.picture {
  height: 100%;
  width: 100%;
  min-height: 0;
}
.slack {
  stroke: #d9ccb1;
  stroke-width: 60;
  stroke-linecap: round;
}
.tight {
  stroke-linecap: round;
  stroke: var(--leather);
  stroke-width: 60;
}
.lay {
  fill: none;
  stroke: var(--ivory-0);
  stroke-width: 2.5;
}
.number {
  font-size: 17px;
  font-weight: 600;
  text-anchor: middle;
  fill: var(--arena-ink);
}
.number.reached {
  font-weight: 800;
  font-size: 22px;
}
.thumb {
  fill: var(--ivory-0);
  stroke: var(--arena-ink);
  stroke-width: 5;
}
.seconds {
  font-size: 17px;
  font-weight: 700;
  text-anchor: middle;
  fill: var(--arena-ink);
}
.says {
  font-size: var(--step-1);
  font-weight: 600;
  text-align: center;
  height: 4.2em; /* whatever is said, the rope stays where it is under the hand */
  overflow: hidden;
  max-width: 210px;
}
@media (max-width: 720px) {
  .rope {
    padding: var(--gap-1);
  }
  .level,
  .level b {
    font-size: var(--step-1);
  }
  .level {
    min-height: var(--step-2);
  }
  .says {
    font-size: var(--step-0);
    line-height: 1.15;
    height: 4.7em;
  }
}
@media (max-width: 720px) and (max-height: 720px) {
  .says {
    height: auto;
    white-space: nowrap;
    text-overflow: ellipsis;
    max-width: 100%;
  }
}
</style>
