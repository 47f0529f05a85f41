<script setup lang="ts">
// The bridge in an owner's words: planks that hold, the next one, those to come.
import { computed } from 'vue'
import PlankShape from '../parts/PlankShape.vue'
import type { HorsePage } from './client'

const { bridge, name } = defineProps<{ bridge: HorsePage['bridge']; name: string }>()

const wide = 380
const pitch = computed(() => wide / Math.max(bridge.planks.length, 1))
const rise = (i: number) => {
  const t = (2 * (i + 0.5)) / bridge.planks.length - 1
  return 22 * t * t
}
const next = computed(() => bridge.planks.findIndex((p) => p.next))
const to = computed(() => bridge.steps - bridge.met)
const words = {
  untried: 'to come',
  slipped: 'slipped',
  kept: 'holds, also on later days',
  met: 'holds',
  tried: 'begun',
  tolerated: 'begun',
} as Record<string, string>
</script>

<template>
  <svg :viewBox="`0 0 ${wide} 112`" role="img" :aria-label="`${bridge.met} of ${bridge.steps} planks hold.`">
    <path class="bank" d="M0 68L14 54H20V112H0z" />
    <path class="bank" :d="`M${wide} 68L${wide - 14} 54H${wide - 20}V112H${wide}z`" />
    <path v-for="x in [0.2, 0.4, 0.6, 0.8]" :key="x" class="pier" :d="`M${wide * x - 6} 44h12l4 60h-20z`" />
    <g v-for="(p, i) in bridge.planks" :key="i" :transform="`translate(${i * pitch + 1} ${30 + rise(i)})`">
      <PlankShape :state="p.blocked ? 'blocked' : p.state" :width="pitch - 2" :height="16" />
    </g>
    <path v-if="next >= 0" class="mark" :d="`M${next * pitch + pitch / 2 - 8} ${10 + rise(next)}h16l-8 11z`" />
  </svg>
  <p>
    {{ bridge.met }} of {{ bridge.steps }} planks hold<template v-if="to > 0">, {{ to }} to come</template>.
    <template v-if="next >= 0"
      >Next: <b>{{ bridge.planks[next]?.name }}</b>.</template
    >
  </p>
  <details>
    <summary>Every plank</summary>
    <ol>
      <li v-for="(p, i) in bridge.planks" :key="i">
        <b>{{ p.name }}</b>: {{ p.blocked ? 'waits' : (words[p.state] ?? p.state)
        }}<template v-if="p.yours">, <u>yours to practise</u></template>
      </li>
    </ol>
    <p v-if="bridge.planks.some((p) => p.blocked)" class="small">
      What waits is blocked until somebody has looked at {{ name }}.
    </p>
  </details>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 560px;
}
.bank {
  fill: var(--ivory-2);
}
.pier {
  fill: var(--ivory-0);
  stroke: var(--pasture-deep);
  stroke-width: 2;
}
.mark {
  fill: var(--arena-ink);
}
summary {
  min-height: var(--hand);
  padding: var(--gap-2) 0;
  text-decoration: underline;
}
ol {
  margin: 0;
  padding-left: 28px;
}
li {
  padding: 4px 0;
}
li b::first-letter {
  text-transform: uppercase;
}
</style>
