<script setup lang="ts">
// Arousal over the session as a band: the higher, the more; over the line is
// hatched, so that it reads in grey.
import { computed, useId } from 'vue'
import type { Schemas } from '../../api/types'

const { felt, words } = defineProps<{ felt: Schemas['ArenaFelt'][]; words: string[] }>()

const width = 640
const height = 96
const id = useId()
const from = computed(() => felt[0]?.at ?? 0)
const span = computed(() => Math.max((felt.at(-1)?.at ?? 0) - from.value, 60_000))
const x = (at: number) => ((at - from.value) / span.value) * width
const y = (level: number) => height - 8 - level * 20

const steps = computed(() =>
  felt.map((f, i) => ({ level: f.level, over: f.over, x: x(f.at), to: x(felt[i + 1]?.at ?? from.value + span.value) })),
)
const says = computed(() => {
  const most = Math.max(0, ...felt.map((f) => f.level))
  return `Arousal over the session: at most ${words[most] ?? most}, at the end ${words[felt.at(-1)?.level ?? 0] ?? ''}`
})
</script>

<template>
  <svg v-if="felt.length" :viewBox="`0 0 ${width} ${height}`" class="band" role="img" :aria-label="says">
    <defs>
      <pattern :id="id" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V7" class="hatch" />
      </pattern>
    </defs>
    <path :d="`M0 ${y(2.5)}H${width}`" class="line" />
    <text :x="width - 4" :y="y(2.5) - 4" class="label">over the line</text>
    <template v-for="(s, i) in steps" :key="i">
      <rect :x="s.x" :y="y(s.level)" :width="Math.max(s.to - s.x, 1)" :height="height - y(s.level)" class="step" />
      <rect
        v-if="s.over"
        :x="s.x"
        :y="y(s.level)"
        :width="Math.max(s.to - s.x, 1)"
        :height="height - y(s.level)"
        :fill="`url(#${id})`"
      />
    </template>
  </svg>
</template>

<style scoped>
.band {
  width: 100%;
  height: auto;
  background: var(--ivory-1);
}
.step {
  fill: var(--ivory-3);
}
.hatch {
  stroke: var(--ink-1);
  stroke-width: 2.5;
}
.line {
  stroke: var(--ink-2);
  stroke-dasharray: 6 4;
}
.label {
  text-anchor: end;
  font-size: var(--step-0);
  fill: var(--ink-1);
}
</style>
