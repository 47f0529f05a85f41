<script setup lang="ts">
// Four lines of landings, in the order of an even walk's beats. A landing can be taken with
// the finger or the arrows and moved, or taken off.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../api/types'
import { hoofSaid, hooves, type Hoof } from './hooves'

type Landing = Schemas['GaitLanding']

const {
  landings,
  now,
  from,
  to,
  step,
  stride,
  odd,
  marks,
  plain = false,
} = defineProps<{
  landings: Landing[]
  now: number
  /** What of the clip is shown, s. */
  from: number
  to: number
  /** How far an arrow moves a landing, s. */
  step: number
  stride?: Schemas['GaitStride']
  odd: Landing[]
  marks: Schemas['ClipMark'][]
  /** The hooves are tapped elsewhere: here they are only named. */
  plain?: boolean
}>()
const emit = defineEmits<{ tap: [hoof: Hoof]; move: [i: number, at: number]; drop: [i: number]; seek: [at: number] }>()

const box = useTemplateRef<SVGSVGElement>('box')
const size = useElementSize(box)
const width = computed(() => size.width.value || 1000)
const x = (at: number) => ((at - from) / (to - from)) * width.value
const lane = 44
const top = 30
const y = (hoof: string) => top + lane * (hooves.findIndex((h) => h.hoof === hoof) + 0.5)
const shown = computed(() => landings.map((l, i) => ({ ...l, i })).filter((l) => l.at >= from && l.at <= to))
const isOdd = (l: Landing) => odd.some((o) => o.hoof === l.hoof && o.at === l.at)
const seconds = computed(() => {
  const gap = to - from > 20 ? 5 : to - from > 8 ? 2 : 1
  return Array.from({ length: Math.floor((to - from) / gap) + 1 }, (_, i) => (Math.ceil(from / gap) + i) * gap).filter(
    (s) => s <= to,
  )
})
// A hoof's print: the fore round, the hind narrow.
const print = (hoof: string) =>
  hoof.endsWith('hind')
    ? 'M-7,12 L-7,-4 Q-7,-12 0,-12 Q7,-12 7,-4 L7,12 L0,5 Z'
    : 'M-10,12 L-10,-2 Q-10,-12 0,-12 Q10,-12 10,-2 L10,12 L0,4 Z'

const dragged = ref(-1)
const at = (e: PointerEvent) => {
  const r = box.value?.getBoundingClientRect()
  return r ? from + ((e.clientX - r.left) / r.width) * (to - from) : 0
}
function take(e: PointerEvent, i: number) {
  dragged.value = i
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}
function key(e: KeyboardEvent, l: Landing & { i: number }) {
  const by = { ArrowLeft: -step, ArrowRight: step }[e.key]
  if (by !== undefined) emit('move', l.i, Math.max(0, l.at + by))
  else if (e.key === 'Delete' || e.key === 'Backspace') emit('drop', l.i)
  else return
  e.preventDefault()
}
</script>

<template>
  <div class="lanes" :class="{ plain }">
    <div v-if="plain" class="names">
      <span v-for="h in hooves" :key="h.hoof" class="hoof named">{{ hoofSaid(h.hoof) }}</span>
    </div>
    <div v-else class="names">
      <button v-for="h in hooves" :key="h.hoof" type="button" class="hoof" @pointerdown.prevent="emit('tap', h.hoof)">
        <span>{{ hoofSaid(h.hoof) }}</span> <kbd>{{ h.key }}</kbd>
      </button>
    </div>
    <svg
      ref="box"
      :viewBox="`0 0 ${width} ${top + 4 * lane + 22}`"
      preserveAspectRatio="none"
      role="group"
      aria-label="Landings"
      @click.self="emit('seek', from + ($event.offsetX / ($event.currentTarget as SVGElement).clientWidth) * (to - from))"
    >
      <rect v-if="stride" :x="x(stride.from)" :y="top" :width="x(stride.to) - x(stride.from)" :height="4 * lane" class="lit" />
      <g v-for="s in seconds" :key="s">
        <line :x1="x(s)" :x2="x(s)" :y1="top" :y2="top + 4 * lane" class="second" />
        <text :x="Math.min(Math.max(x(s), 14), width - 14)" :y="top + 4 * lane + 17" class="small">{{ s }} s</text>
      </g>
      <line v-for="h in hooves" :key="h.hoof" x1="0" :x2="width" :y1="y(h.hoof) + 12" :y2="y(h.hoof) + 12" class="ruled" />
      <template v-if="stride">
        <path :d="`M${x(stride.from)},${top - 4} V${top - 12} H${x(stride.to)} V${top - 4}`" class="bracket" />
        <text :x="x((stride.from + stride.to) / 2)" :y="top - 16" class="small">one stride</text>
      </template>
      <line
        v-for="m in marks.filter((m) => m.at >= from && m.at <= to)"
        :key="m.id"
        :x1="x(m.at)"
        :x2="x(m.at)"
        :y1="top"
        :y2="top + 4 * lane"
        class="mark"
      />
      <g
        v-for="l in shown"
        :key="`${l.i} ${l.hoof}`"
        :transform="`translate(${x(l.at)},${y(l.hoof)})`"
        class="landing"
        :class="{ off: l.hoof.startsWith('off'), odd: isOdd(l) }"
        tabindex="0"
        role="slider"
        :aria-label="`${hoofSaid(l.hoof)} lands`"
        :aria-valuenow="l.at"
        :aria-valuetext="`${l.at.toFixed(2)} s${isOdd(l) ? ', check this tap' : ''}`"
        @pointerdown="take($event, l.i)"
        @pointermove="dragged === l.i && emit('move', l.i, Math.max(0, at($event)))"
        @pointerup="dragged = -1"
        @keydown="key($event, l)"
      >
        <path :d="print(l.hoof)" />
      </g>
      <line v-if="now >= from && now <= to" :x1="x(now)" :x2="x(now)" y1="0" :y2="top + 4 * lane" class="now" />
    </svg>
  </div>
</template>

<style scoped>
.lanes {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
}
.names {
  padding-top: 30px;
  display: grid;
  grid-auto-rows: 44px;
}
.hoof {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 var(--gap-3) 0 var(--gap-2);
  border: 0;
  border-bottom: var(--line);
  background: var(--ivory-2);
  font: inherit;
  font-weight: 700;
  cursor: pointer;
  touch-action: manipulation;
}
.hoof:active {
  background: var(--ivory-3);
}
svg {
  width: 100%;
  height: 228px;
  touch-action: none;
}
text {
  font: 400 13px var(--font-ui);
  text-anchor: middle;
  fill: var(--ink-1);
}
.lit {
  fill: var(--ivory-2);
}
.second {
  stroke: var(--ivory-3);
}
.ruled {
  stroke: var(--ink-2);
}
.bracket {
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 2;
}
.mark {
  stroke: var(--leather);
  stroke-dasharray: 2 4;
  stroke-width: 2;
}
.now {
  stroke: var(--ink-1);
  stroke-width: 3;
}
.landing {
  cursor: grab;
}
.landing path {
  fill: var(--ink-1);
  stroke: var(--ink-1);
  stroke-width: 2;
}
.landing.off path {
  fill: var(--ivory-0);
}
.landing.odd path {
  stroke: var(--rust);
  stroke-width: 4;
}
.plain {
  grid-template-columns: 84px minmax(0, 1fr);
}
.named {
  background: none;
  padding-left: 0;
  font-weight: 400;
  font-size: var(--step-0);
  cursor: default;
}
@media (max-width: 600px) {
  kbd {
    display: none;
  }
  .lanes:not(.plain) {
    grid-template-columns: minmax(0, 1fr);
  }
  .lanes:not(.plain) .names {
    order: 2;
    padding-top: var(--gap-2);
    grid-template-columns: 1fr 1fr;
    grid-auto-rows: var(--touch);
    gap: var(--gap-2);
  }
}
</style>
