<script setup lang="ts">
// The two sides of the same step, near to the left and off to the right: a ring for
// the first day, a disc for now. Nearer to the middle is lighter.
import type { Schemas } from '../../api/types'
import { sideWord } from '../../words'

const { pairs } = defineProps<{ pairs: Schemas['ProgressPair'][] }>()

const half = 120
const out = (level: number) => 12 + (level / 10) * (half - 24)
const round = Math.round
</script>

<template>
  <div class="sides">
    <p class="heads" aria-hidden="true">
      <b class="near">{{ sideWord('near') }}</b> <b class="off">{{ sideWord('off') }}</b>
    </p>
    <ul>
      <li v-for="p in pairs" :key="p.step">
        <p class="name">{{ p.name }}</p>
        <svg
          :viewBox="`${-half} 0 ${2 * half} 34`"
          role="img"
          :aria-label="`${p.name}: ${sideWord('near')} ${round(p.near.first)} at first, ${round(p.near.now)} now; ${sideWord('off')} ${round(p.off.first)} at first, ${round(p.off.now)} now`"
        >
          <path :d="`M${-half} 22H${half}`" class="scale" />
          <path d="M0 14V30" class="middle" />
          <g
            v-for="s in [
              { name: 'near', by: -1, ends: p.near },
              { name: 'off', by: 1, ends: p.off },
            ]"
            :key="s.name"
            :class="s.name"
          >
            <path :d="`M${s.by * out(s.ends.first)} 22H${s.by * out(s.ends.now)}`" class="way" />
            <circle :cx="s.by * out(s.ends.first)" cy="22" r="6" class="ring" />
            <circle :cx="s.by * out(s.ends.now)" cy="22" r="6.5" class="disc" />
            <text :x="s.by * out(s.ends.now)" y="11" class="now">{{ round(s.ends.now) }}</text>
          </g>
        </svg>
      </li>
    </ul>
    <p class="quiet small">Ring: the first day. Disc: now. Nearer to the middle is lighter.</p>
  </div>
</template>

<style scoped>
.heads {
  display: flex;
  justify-content: space-between;
}
.name {
  text-align: center;
  font-weight: 600;
}
svg {
  width: 100%;
}
.scale,
.middle {
  stroke: var(--ivory-3);
  stroke-width: 1.5;
}
.near {
  --side-ink: var(--slate);
  color: var(--slate);
}
.off {
  --side-ink: var(--leather);
  color: var(--leather);
}
.way {
  stroke: var(--side-ink);
  stroke-width: 2.4;
}
.ring {
  fill: var(--ivory-0);
  stroke: var(--side-ink);
  stroke-width: 2;
}
.disc {
  fill: var(--side-ink);
}
.now {
  fill: var(--ink-1);
  font-size: 11px;
  text-anchor: middle;
}
</style>
