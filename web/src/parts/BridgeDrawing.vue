<script setup lang="ts">
// A problem as a bridge from before to goal: planks are the ladder's steps, piers
// the foundations under it, the flag where the goal is reached. In the hand only
// the planks near the work are drawn, and the whole on a tap.
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { dayMonth, secure } from '../words'
import { arched, bankOf, height, piers as piersOf, plankHeight, said, stateOf, water, worded, type Bridge } from './bridge'
import BridgeNearby from './BridgeNearby.vue'
import FlagPost from './FlagPost.vue'
import NameLines from './NameLines.vue'
import PierShape from './PierShape.vue'
import PlankShape from './PlankShape.vue'

const {
  bridge,
  before = '',
  by = '',
  choosable = false,
  method = false,
} = defineProps<{
  bridge: Bridge
  before?: string
  /** The day by which the goal is needed. */
  by?: string
  /** A tap on a plank makes it the one where the goal is reached. */
  choosable?: boolean
  /** It is a method, not a horse: no state is drawn. */
  method?: boolean
}>()
const goal = computed(() => {
  if (method) return 'the whole ladder'
  return by ? `the goal, ${dayMonth(by)}` : 'the goal'
})
const after = computed(() =>
  bridge.planks
    .filter((p) => p.beyond)
    .map((p) => p.name)
    .join(', '),
)
const emit = defineEmits<{ end: [step: string] }>()

const box = useTemplateRef('box')
// What it will be, before it is measured, so that nothing moves.
const { width: measured } = useElementSize(box, { width: Math.min(window.innerWidth - 32, 1088), height: 0 })
const whole = ref(false)

const width = computed(() => Math.max(measured.value, 280))
const narrow = computed(() => width.value < 660)
const bank = computed(() => bankOf(width.value, bridge.planks.length))
const planks = computed(() => arched(bridge, width.value))
const under = computed(() => piersOf(bridge, width.value, planks.value))
/** Where the deck begins, between the ground and the arch. */
const shore = computed(() => (planks.value[0]?.y ?? 128) + 8)
const tight = computed(() => (planks.value[0]?.width ?? 60) < 54)
const letters = computed(() => Math.floor((planks.value[0]?.width ?? 60) / 7.4) + 1)
const pierLetters = computed(() => Math.floor((width.value - 2 * bank.value) / Math.max(under.value.length, 1) / 7.4))
const words = computed(() => worded(planks.value, under.value))

/** The last plank before what lies beyond the goal. */
const last = computed(() => planks.value.filter((p) => !p.plank.beyond).at(-1))
const flag = computed(() => {
  const at = last.value
  if (!at) return undefined
  const x = at.x + at.width / 2 - 6
  return { x, top: Math.min(at.y - 66, 34), foot: at.y - 8, left: x > width.value - 230 }
})
const short = computed(() => `${bridge.name}: ${secure(bridge)}${bridge.blocked ? `, ${bridge.blocked} blocked` : ''}.`)
</script>

<template>
  <figure ref="box" class="bridge">
    <template v-if="narrow">
      <BridgeNearby :bridge="bridge" :goal="goal" :width="width" :name="short" />
      <button type="button" class="more" :aria-expanded="whole" @click="whole = !whole">
        {{ whole ? 'Only the planks near the work' : `The whole bridge, ${bridge.planks.length} planks` }}
      </button>
      <ol v-if="whole" class="rows">
        <li v-for="p in planks" :key="p.plank.step" :class="{ strong: p.plank.next }">
          <svg viewBox="-1 -1 46 22" width="46" height="22" aria-hidden="true">
            <g v-for="piece in p.pieces" :key="piece.x" :transform="`translate(${piece.x * 44} 0)`">
              <PlankShape :state="piece.state" :width="piece.width * 44" :height="20" :pale="p.plank.beyond" />
            </g>
          </svg>
          <span>{{ p.plank.name }}</span>
          <button v-if="choosable" type="button" class="end" @click="emit('end', p.plank.step)">
            {{ p === last ? 'the goal' : 'end here' }}
          </button>
          <span v-else class="quiet">{{ stateOf(p.plank) }}</span>
        </li>
      </ol>
    </template>
    <svg
      v-else
      :viewBox="`0 0 ${width} ${height}`"
      class="whole"
      :class="{ tight }"
      :role="choosable ? 'group' : 'img'"
      :aria-label="short"
    >
      <path :d="`M0 ${shore + 12}L${bank * 0.5} ${shore}L${bank - 2} ${shore + 4}L${bank + 8} ${water + 4}H0Z`" class="bank" />
      <path
        :d="`M${width} ${shore + 12}L${width - bank * 0.5} ${shore}L${width - bank + 2} ${shore + 4}L${width - bank - 8} ${water + 4}H${width}Z`"
        class="bank"
      />
      <path
        :d="`M${bank + 5} ${water - 25}Q${width * 0.28} ${water - 31} ${width / 2} ${water - 26}T${width - bank - 5} ${water - 27}L${width - bank - 8} ${water + 4}H${bank + 8}Z`"
        class="water"
      />
      <g v-for="p in under" :key="p.plank.step">
        <PierShape :at="p" :method="method" />
        <NameLines
          :name="p.plank.name"
          :x="p.x"
          :y="water + 16"
          :letters="pierLetters"
          :apart="12"
          class="label pier-name"
          :class="{ missing: !method && p.plank.state !== 'met' && p.plank.state !== 'kept' }"
        />
      </g>
      <g
        v-for="p in planks"
        :key="p.plank.step"
        :class="{ choosable }"
        :role="choosable ? 'button' : undefined"
        :tabindex="choosable ? 0 : undefined"
        :aria-label="choosable ? `The goal is reached at ${p.plank.name}` : undefined"
        :aria-pressed="choosable ? p === last : undefined"
        @click="choosable && emit('end', p.plank.step)"
        @keydown.enter="choosable && emit('end', p.plank.step)"
      >
        <g :transform="`translate(${p.x} ${p.y}) rotate(${p.angle}) translate(${-p.width / 2} ${-plankHeight / 2})`">
          <rect :width="p.width" :height="plankHeight" class="touch" />
          <g v-for="piece in p.pieces" :key="piece.x" :transform="`translate(${piece.x * p.width} 0)`">
            <PlankShape :state="piece.state" :width="piece.width * p.width" :height="plankHeight" :pale="p.plank.beyond" />
          </g>
        </g>
      </g>
      <g v-for="p in planks" :key="`label ${p.plank.step}`" class="labels">
        <NameLines
          :name="p.plank.name"
          :x="p.x"
          :y="p.y - 20 - Math.abs(p.angle) / 3"
          :letters="letters"
          up
          class="label"
          :class="{ next: p.plank.next, beyond: p.plank.beyond, goal: p === last }"
        />
        <text
          v-if="!method && !tight && words.has(p.plank.step)"
          :x="p.x"
          :y="p.y + 28 + Math.abs(p.angle) / 3"
          class="label state"
        >
          {{ stateOf(p.plank) }}
        </text>
        <g v-if="p.plank.next">
          <path :d="`M${p.x - 8} ${p.y - 54}h16l-8 11z`" class="mark" />
          <text :x="p.x" :y="p.y - 60" class="label here">here</text>
        </g>
      </g>
      <template v-if="flag">
        <FlagPost :x="flag.x" :top="flag.top" :foot="flag.foot" />
        <text :x="flag.left ? flag.x - 8 : flag.x + 32" :y="flag.top + 14" class="label flagged" :class="{ leftward: flag.left }">
          {{ goal }}
        </text>
      </template>
    </svg>
    <template v-if="!narrow">
      <div v-if="before && bank > 90" class="shore left" :style="{ width: `${Math.min(bank, 260)}px` }">
        <span class="quiet">Before</span><span>{{ before }}</span>
      </div>
      <div v-if="after && bank > 90" class="shore right quiet" :style="{ width: `${Math.min(bank, 260)}px` }">
        <span>After the goal</span>{{ after }}
      </div>
    </template>
    <ol class="visually-hidden">
      <li v-for="p in bridge.planks" :key="p.step">{{ p.name }}: {{ said(p) }}{{ p.next ? ', next' : '' }}</li>
      <li v-for="p in bridge.piers" :key="p.step">foundation {{ p.name }}: {{ said(p) }}</li>
    </ol>
  </figure>
</template>

<style scoped>
.bridge {
  position: relative;
  margin: 0;
  min-width: 0;
}
.whole {
  display: block;
  width: 100%;
  aspect-ratio: auto;
  height: 242px;
}
.water {
  fill: var(--water);
}
.bank {
  fill: var(--ivory-2);
}
.label {
  font-size: var(--step-1);
  text-anchor: middle;
  fill: var(--ink-1);
}
.tight .label {
  font-size: var(--step-0);
}
.label.next,
.label.goal,
.label.here {
  font-weight: 700;
}
.label.beyond,
.label.state {
  fill: var(--ink-2);
}
.label.state {
  font-size: var(--step-0);
  paint-order: stroke;
  stroke: var(--ivory-0);
  stroke-width: 5px;
}
.pier-name {
  font-size: 0.875rem;
}
.pier-name.two {
  font-size: var(--step-0);
}
.label.missing {
  font-weight: 700;
  fill: var(--rust);
}
.label.here {
  fill: var(--leather);
}
.label.flagged {
  font: 700 1rem var(--font-head);
  text-anchor: start;
}
.label.flagged.leftward {
  text-anchor: end;
}
.mark {
  fill: var(--leather);
}
.touch {
  fill: transparent;
}
.choosable {
  cursor: pointer;
}
.labels {
  pointer-events: none;
}
.choosable:focus-visible {
  outline-offset: 4px;
}
.shore {
  position: absolute;
  bottom: 26px;
  padding: 0 var(--gap-2);
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 4;
  max-height: 80px;
  overflow: hidden;
  font-size: 0.875rem;
  line-height: 1.3;
  overflow-wrap: anywhere;
}
.shore .quiet,
.shore.right span {
  display: block;
  font-size: var(--step-0);
}
.left {
  left: 0;
  font-weight: 600;
}
.left .quiet {
  font-weight: 400;
}
.right {
  right: 0;
  text-align: right;
}
.more,
.end {
  background: none;
  border: 0;
  padding: 0;
  min-height: var(--hand);
  color: var(--slate);
  text-decoration: underline;
  text-align: left;
  cursor: pointer;
}
.rows li {
  display: grid;
  grid-template-columns: 52px 1fr auto;
  align-items: center;
  min-height: var(--hand);
  border-top: var(--line);
}
</style>
