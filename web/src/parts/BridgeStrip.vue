<script setup lang="ts">
// The same bridge small, for a list: planks in a row on a slight arch.
import { computed } from 'vue'
import type { Schemas } from '../api/types'
import { pieces } from './plank'
import PlankShape from './PlankShape.vue'

const { bridge } = defineProps<{ bridge: Schemas['ProgressBridge'] }>()

const pitch = 19
const height = 12
const width = computed(() => bridge.planks.length * pitch)
const rise = (i: number) => {
  const t = (2 * (i + 0.5)) / bridge.planks.length - 1
  return 14 * t * t
}
const says = computed(() => bridge.planks.map((p) => `${p.name} ${p.blocked ? 'blocked' : p.state}`).join(', '))
</script>

<template>
  <svg :viewBox="`0 0 ${width} 32`" :width="width" height="32" role="img" :aria-label="says" class="strip">
    <g v-for="(p, i) in bridge.planks" :key="p.step" :transform="`translate(${i * pitch + 1} ${4 + rise(i)})`">
      <g v-for="piece in pieces(p.parts, !!p.blocked)" :key="piece.x" :transform="`translate(${piece.x * (pitch - 2)} 0)`">
        <PlankShape :state="piece.state" :width="piece.width * (pitch - 2)" :height="height" />
      </g>
    </g>
  </svg>
</template>

<style scoped>
.strip {
  display: block;
  max-width: 100%;
}
</style>
