<script setup lang="ts">
// Which gait it is, in words, and where the fore foot falls in each stride, on a scale.
import { computed } from 'vue'
import type { Schemas } from '../api/types'
import { count } from '../words'

const { result } = defineProps<{ result?: Schemas['GaitResult'] }>()

const width = 330
const from = -0.05
const to = 0.55
const classes = [
  { name: 'pace', says: 'pace', from: -0.05, to: 0.05 },
  { name: 'stepping pace', says: 'stepping', from: 0.05, to: 0.2 },
  { name: 'even four-beat walk', says: 'walk', from: 0.2, to: 0.3 },
  { name: 'diagonal four-beat', says: 'diagonal', from: 0.3, to: 0.45 },
  { name: 'trot', says: 'trot', from: 0.45, to: 0.55 },
]
const x = (f: number) => ((f - from) / (to - from)) * width
// Strides that fall alike stand on one another.
const dots = computed(() => {
  const high = new Map<number, number>()
  return (result?.strides ?? [])
    .filter((s) => s.fraction <= to)
    .map((s) => {
      const column = Math.round(x(s.fraction) / 9)
      const n = high.get(column) ?? 0
      high.set(column, n + 1)
      return { x: column * 9, y: 44 - 9 * Math.min(n, 4) }
    })
})
const shares = computed(() => (result?.shares ?? []).map((s) => `${s.n} ${s.class}`).join(', '))
const round = (n?: number) => (n === undefined ? '' : n.toFixed(2))
</script>

<template>
  <div class="verdict stack" aria-live="polite">
    <template v-if="result">
      <p v-if="result.vet" class="vet">{{ result.vet.text }}</p>
      <p class="says">{{ result.says.text }}</p>
      <p v-if="result.how">{{ result.how.text }}</p>
      <svg v-if="result.strides.length" :viewBox="`0 0 ${width} 92`" role="img" :aria-label="`Strides: ${shares}`">
        <circle v-for="(d, i) in dots" :key="i" :cx="d.x" :cy="d.y" r="4" />
        <g v-for="c in classes" :key="c.name">
          <rect :x="x(c.from)" y="52" :width="x(c.to) - x(c.from)" height="16" :class="{ is: c.name === result.class }" />
          <text :x="(x(c.from) + x(c.to)) / 2" y="86" :class="{ is: c.name === result.class }">{{ c.says }}</text>
        </g>
      </svg>
      <dl v-if="result.class">
        <div>
          <dt>Strides</dt>
          <dd>{{ shares || 'none with a fore foot in it' }}</dd>
        </div>
        <div v-if="result.apart !== undefined">
          <dt>From side to side</dt>
          <dd>{{ round(result.near) }} and {{ round(result.off) }}, {{ round(result.apart) }} apart</dd>
        </div>
        <div>
          <dt>Steps a minute</dt>
          <dd>{{ Math.round(result.steps ?? 0) }}, at true speed</dd>
        </div>
      </dl>
      <p v-if="result.odd?.length" class="short">
        Check {{ count(result.odd.length, 'tap', 'taps') }}: the stride before is far too long or too short.
      </p>
    </template>
    <p v-else class="says">Tap each foot as it lands, three strides.</p>
  </div>
</template>

<style scoped>
.says {
  font: 700 var(--lead) / 1.2 var(--font-head);
}
.vet {
  font-weight: 700;
  border-left: 4px solid var(--rust);
  padding-left: var(--gap-2);
}
svg {
  width: 100%;
  max-width: 400px;
}
rect {
  fill: var(--ivory-2);
  stroke: var(--ink-1);
}
rect.is {
  fill: var(--pasture);
}
text {
  font: 400 13px var(--font-ui);
  text-anchor: middle;
}
text.is {
  font-weight: 700;
}
dl {
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  gap: var(--gap-3);
  padding: var(--gap-1) 0;
  border-top: var(--line);
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
</style>
