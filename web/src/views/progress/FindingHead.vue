<script setup lang="ts">
// One finding: its sentence, how sure it is as a knot and in a word, and why.
import type { Schemas } from '../../api/types'
import KnotShape from '../../parts/KnotShape.vue'

const { finding } = defineProps<{ finding: Pick<Schemas['ProgressFelt'], 'says' | 'how' | 'means'> }>()

const knots = { sure: 'tied', 'no clear change': 'open', 'too early to say': 'dashed' } as const
const knot = (how: string) => knots[how as keyof typeof knots] ?? 'dashed'
</script>

<template>
  <header>
    <h2>{{ finding.says.text }}</h2>
    <p class="how">
      <svg viewBox="-14 -7 28 14" class="knot" aria-hidden="true">
        <path d="M-14 0H-5M5 0H14" class="rope" :class="knot(finding.how)" />
        <KnotShape :state="knot(finding.how)" />
      </svg>
      <b>{{ finding.how.charAt(0).toUpperCase() + finding.how.slice(1) }}.</b> {{ finding.means.text }}
    </p>
  </header>
</template>

<style scoped>
h2 {
  font-size: var(--part);
  line-height: 1.25;
}
.how {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 var(--gap-2);
}
.knot {
  flex: none;
  width: 42px;
}
.rope {
  stroke: var(--leather);
  stroke-width: 2;
}
.rope.dashed {
  stroke-dasharray: 2.4 2;
}
</style>
