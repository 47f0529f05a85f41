<script setup lang="ts">
// A ladder small: a plank for each step on a slight arch, a pier for each
// foundation it stands on. No state: this is the method, not a horse.
import { computed } from 'vue'

const { planks, piers, says } = defineProps<{ planks: number; piers: number; says: string }>()

const width = 240
const bank = 12
const deck = 30
const water = 60
const pitch = computed(() => Math.min((width - 2 * bank) / planks, 26))
const start = computed(() => (width - pitch.value * planks) / 2)
const span = computed(() => pitch.value * planks)
const rise = (x: number) => {
  const t = (2 * (x - start.value)) / span.value - 1
  return deck - 16 * (1 - t * t)
}
const boards = computed(() =>
  Array.from({ length: planks }, (_, i) => {
    const x = start.value + pitch.value * (i + 0.5)
    return { x, y: rise(x), angle: ((rise(x + 3) - rise(x - 3)) / 6) * (180 / Math.PI) }
  }),
)
const posts = computed(() =>
  Array.from({ length: piers }, (_, i) => {
    const x = start.value + (span.value * (i + 0.5)) / piers
    return { x, y: rise(x) + 6 }
  }),
)
</script>

<template>
  <svg :viewBox="`0 0 ${width} 68`" class="small-bridge" role="img" :aria-label="says">
    <path :d="`M0 ${water}q60 -4 120 0t120 0V68H0z`" class="water" />
    <path
      :d="`M0 ${deck - 4}L${start - 3} ${rise(start) - 2}V68H0zM${width} ${deck - 4}L${width - start + 3} ${rise(start) - 2}V68H${width}z`"
      class="bank"
    />
    <path v-for="p in posts" :key="p.x" :d="`M${p.x - 3} ${p.y}h6l2 ${64 - p.y}h-10z`" class="post" />
    <rect
      v-for="b in boards"
      :key="b.x"
      :x="-pitch / 2 + 1"
      y="-5"
      :width="pitch - 2"
      height="9"
      class="board"
      :transform="`translate(${b.x} ${b.y}) rotate(${b.angle})`"
    />
  </svg>
</template>

<style scoped>
.small-bridge {
  display: block;
  width: 100%;
  max-width: 300px;
}
.water {
  fill: #dde6e6;
}
.bank {
  fill: var(--ivory-2);
}
.post {
  fill: var(--ivory-0);
  stroke: var(--ink-2);
  stroke-width: 1.5;
}
.board {
  fill: var(--leather);
}
</style>
