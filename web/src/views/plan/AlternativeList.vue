<script setup lang="ts">
// Other ladders and ways to the same goal, side by side.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { count } from '../../words'
import type { Change, PlanView } from './usePlan'

const { view, change } = defineProps<{ view: PlanView; change: Change }>()
type Way = Schemas['AlternativeWay']

const main = computed(() => view.problems.find((p) => p.main)?.problem ?? '')

function take(a: Way) {
  void change((c) => {
    if (a.setting) c.settings = { ...c.settings, ...a.setting }
    else c.goals = { ...c.goals, [main.value]: { ...c.goals?.[main.value], ladder: a.ladder, until: '' } }
  })
}
const rows: { name: string; say: (a: Way) => string }[] = [
  { name: 'Steps to go', say: (a) => String(a.left) },
  { name: 'Expected sessions', say: (a) => `about ${a.median}` },
  { name: 'School', say: (a) => a.school },
  { name: 'Risk', say: (a) => (a.points ? `a narrow place: ${a.points} point more` : 'nothing of its own') },
  { name: 'Ridden', say: (a) => (a.ridden ? count(a.ridden, 'step', 'steps') : 'none') },
  { name: 'Barred now', say: (a) => (a.barred ? count(a.barred, 'step', 'steps') : 'none') },
  { name: 'Foundations missing', say: (a) => a.missing.join(', ') || 'none' },
  { name: 'People', say: (a) => a.helpers.join('. ') || 'one is enough' },
  { name: 'Made for', say: (a) => a.suits?.join(', ') ?? '' },
]
const shown = computed(() => rows.filter((r) => r.name !== 'Made for' || view.alternatives.some((a) => a.suits?.length)))
</script>

<template>
  <section class="sheet stack">
    <h2>Other ways to the same goal</h2>
    <div class="ways">
      <article v-for="(a, i) in view.alternatives" :key="i" class="way stack" :class="{ chosen: a.chosen }">
        <h3>{{ a.says || a.name }}</h3>
        <dl>
          <template v-for="r in shown" :key="r.name">
            <dt class="quiet small">{{ r.name }}</dt>
            <dd>{{ r.say(a) }}</dd>
          </template>
        </dl>
        <p v-if="a.chosen" class="strong">This is the plan.</p>
        <div v-else>
          <ElButton @click="take(a)"
            >Try it<span class="visually-hidden">: {{ a.says || a.name }}</span></ElButton
          >
        </div>
      </article>
    </div>
  </section>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: var(--gap-3);
}
.way {
  border: 2px solid var(--ivory-3);
  border-radius: var(--radius);
  padding: var(--gap-3);
}
.chosen {
  border-color: var(--ink-1);
}
dl {
  margin: 0;
}
dd {
  margin: 0 0 var(--gap-2);
  overflow-wrap: anywhere;
}
</style>
