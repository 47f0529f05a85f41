<script setup lang="ts">
// A pier: a foundation under the bridge. It stands as far as it is met; what is
// missing is a dashed outline.
import type { Standing } from './bridge'
import { stateOf, water } from './bridge'
import PlankShape from './PlankShape.vue'

const { at, method = false } = defineProps<{ at: Standing; method?: boolean }>()
const leans = 5

const side = (from: number, to: number) =>
  `M${at.x + from * 0.36 * at.width * 2} ${at.y}L${at.x + to * 0.36 * at.width * 2} ${at.y}L${at.x + to * at.width} ${water}L${at.x + from * at.width} ${water}Z`
const whole = () => side(-0.5, 0.5)
const missing = (state: string) => !method && state !== 'met' && state !== 'kept'
</script>

<template>
  <g>
    <template v-if="at.pieces.length === 1">
      <path :d="whole()" class="pier" :class="[stateOf(at.plank), { missing: missing(stateOf(at.plank)) }]" />
    </template>
    <template v-else>
      <path
        v-for="(p, i) in at.pieces"
        :key="p.x"
        :d="side(i / at.pieces.length - 0.5, (i + 1) / at.pieces.length - 0.5)"
        class="pier"
        :class="[p.state, { missing: missing(p.state) }]"
      />
    </template>
    <g v-if="!method" :transform="`translate(${at.x - at.width / 2 + leans / 2} ${water - 44})`">
      <g v-for="piece in at.pieces" :key="piece.x" :transform="`translate(${piece.x * (at.width - leans)} 0)`">
        <PlankShape :state="piece.state" :width="piece.width * (at.width - leans)" :height="13" small />
      </g>
    </g>
  </g>
</template>

<style scoped>
.pier {
  fill: var(--ivory-0);
  stroke: var(--pasture-deep);
  stroke-width: 2;
}
.pier.missing {
  fill: none;
  stroke: var(--rust);
  stroke-dasharray: 5 4;
}
@media (forced-colors: active) {
  .pier {
    stroke: CanvasText;
  }
}
</style>
