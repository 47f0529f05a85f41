<script setup lang="ts">
// The same bridge small, for a list: planks of one size on a slight arch, so that a
// longer ladder is a longer bridge; the flag at the goal.
import { computed } from 'vue'
import type { Schemas } from '../api/types'
import { said } from './bridge'
import FlagPost from './FlagPost.vue'
import { pieces } from './plank'
import PlankShape from './PlankShape.vue'

const { bridge } = defineProps<{ bridge: Schemas['ProgressBridge'] }>()

const pitch = 17
const height = 10
const width = computed(() => bridge.planks.length * pitch + 8)
/** Lower at the ends, the more so the longer the bridge is. */
const rise = (i: number) => {
  const n = bridge.planks.length
  const t = (2 * (i + 0.5)) / n - 1
  return Math.min(n, 13) * 0.6 * t * t
}
const goal = computed(() => bridge.planks.findLastIndex((p) => !p.beyond))
const says = computed(() => bridge.planks.map((p) => `${p.name}: ${said(p)}`).join(', '))
</script>

<template>
  <svg :viewBox="`0 0 ${width} 36`" :width="width" height="36" role="img" :aria-label="`${bridge.name}. ${says}`" class="strip">
    <g v-for="(p, i) in bridge.planks" :key="p.step" :transform="`translate(${i * pitch + 1} ${16 + rise(i)})`">
      <g v-for="piece in pieces(p.parts, !!p.blocked)" :key="piece.x" :transform="`translate(${piece.x * (pitch - 2)} 0)`">
        <PlankShape :state="piece.state" :width="piece.width * (pitch - 2)" :height="height" small :pale="p.beyond" />
      </g>
    </g>
    <FlagPost v-if="goal >= 0" :x="goal * pitch + 9" :top="2" :foot="16 + rise(goal)" :wide="9" />
  </svg>
</template>

<style scoped>
.strip {
  display: block;
  max-width: 100%;
}
</style>
