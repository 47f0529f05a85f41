<script setup lang="ts">
// The bridge in the hand: the planks near the work, and the goal.
import { computed } from 'vue'
import { nearby, type Bridge } from './bridge'
import FlagPost from './FlagPost.vue'
import NameLines from './NameLines.vue'
import { pieces } from './plank'
import PlankShape from './PlankShape.vue'

const { bridge, goal, width, name } = defineProps<{ bridge: Bridge; goal: string; width: number; name: string }>()

const deck = 66
const tall = 28
const shown = computed(() => nearby(bridge))
const last = computed(() => bridge.planks.filter((p) => !p.beyond).at(-1))
/** The goal stands apart where it is not among the planks near the work. */
const apart = computed(() => !!last.value && !shown.value.includes(last.value))
const wide = computed(() => (width - (apart.value ? 76 : 6)) / shown.value.length)
const flagged = computed(() => {
  const i = shown.value.findIndex((p) => p === last.value)
  return apart.value ? width - 36 : wide.value * (i + 0.5)
})
const letters = computed(() => Math.floor(wide.value / 8))
</script>

<template>
  <svg :viewBox="`0 0 ${width} 142`" :width="width" height="142" role="img" :aria-label="name" class="near">
    <path :d="`M0 122Q${width / 4} 116 ${width / 2} 120T${width} 119V142H0Z`" class="water" />
    <g v-for="(p, i) in shown" :key="p.step">
      <g :transform="`translate(${i * wide + 2} ${deck})`">
        <g v-for="piece in pieces(p.parts, !!p.blocked)" :key="piece.x" :transform="`translate(${piece.x * (wide - 4)} 0)`">
          <PlankShape :state="piece.state" :width="piece.width * (wide - 4)" :height="tall" :pale="p.beyond" />
        </g>
      </g>
      <NameLines
        :name="p.name"
        :x="(i + 0.5) * wide"
        :y="deck - 8"
        :letters="letters"
        up
        class="label"
        :class="{ next: p.next, beyond: p.beyond }"
      />
      <g v-if="p.next">
        <path :d="`M${(i + 0.5) * wide - 9} 22h18l-9 12z`" class="mark" />
        <text :x="(i + 0.5) * wide" y="15" class="label next">here</text>
      </g>
    </g>
    <template v-if="apart && last">
      <path :d="`M${width - 68} ${deck + 14}h1M${width - 58} ${deck + 14}h1`" class="dots" />
      <g :transform="`translate(${width - 50} ${deck})`">
        <g v-for="piece in pieces(last.parts, !!last.blocked)" :key="piece.x" :transform="`translate(${piece.x * 46} 0)`">
          <PlankShape :state="piece.state" :width="piece.width * 46" :height="tall" />
        </g>
      </g>
    </template>
    <FlagPost :x="flagged" :top="deck - 38" :foot="deck" :wide="20" />
    <text :x="width - 2" :y="deck + 46" class="label end">{{ goal }}</text>
  </svg>
</template>

<style scoped>
.near {
  display: block;
  max-width: 100%;
}
.water {
  fill: var(--water);
}
.label {
  font-size: 1rem;
  text-anchor: middle;
  fill: var(--ink-1);
}
.label.end {
  text-anchor: end;
  font-weight: 700;
}
.next {
  font-weight: 700;
}
.beyond {
  fill: var(--ink-2);
}
.mark {
  fill: var(--leather);
}
.dots {
  stroke: var(--ink-1);
  stroke-width: 4;
  stroke-linecap: round;
}
</style>
