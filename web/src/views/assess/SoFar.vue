<script setup lang="ts">
// The result as it builds up beside the walk.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import BeliefMark from '../../parts/BeliefMark.vue'
import { count } from '../../words'

const {
  result = undefined,
  problem,
  behind,
} = defineProps<{ result?: Schemas['AssessResult']; problem: string; behind: number }>()
const emit = defineEmits<{ go: [section: string] }>()

const one = computed(() => result?.problems.find((p) => p.problem === problem))
const believed = computed(() => one.value?.causes.filter((c) => ['likely', 'possible'].includes(c.belief)) ?? [])
const rest = computed(() => one.value?.causes.filter((c) => !['likely', 'possible'].includes(c.belief)) ?? [])
const telling = computed(() => one.value?.telling)
const sectionOf = (look: string) => look.split('.')[0] ?? 'A'
</script>

<template>
  <aside class="sofar stack" aria-live="polite" aria-label="So far">
    <h2>So far</h2>
    <p v-if="behind" class="quiet">{{ count(behind, 'tap', 'taps') }} not counted in yet.</p>
    <p v-if="!result">It builds up here with the first tap that arrives.</p>
    <template v-else>
      <ul class="causes">
        <li v-for="c in believed" :key="c.cause">
          <BeliefMark :belief="c.belief" />
          <span
            ><b>{{ c.belief }}</b
            >: {{ c.says.text }}<small v-if="c.for[0]">{{ c.for[0].says }}</small></span
          >
        </li>
        <li v-if="!believed.length"><span>Nothing is likely or possible yet.</span></li>
      </ul>
      <details>
        <summary>{{ count(rest.length, 'other cause', 'other causes') }}</summary>
        <ul class="causes">
          <li v-for="c in rest" :key="c.cause">
            <BeliefMark :belief="c.belief" /><span>{{ c.belief }}: {{ c.says.text }}</span>
          </li>
        </ul>
      </details>
      <div v-if="telling" class="telling stack">
        <p>{{ telling.say.text }}</p>
        <button type="button" class="go" @click="emit('go', sectionOf(telling.look))">Go there</button>
      </div>
      <p>
        <b>{{ result.care }}</b>, {{ count(result.risk.points, 'point', 'points') }}
      </p>
      <ul v-if="result.stops.length" class="stops">
        <li v-for="s in result.stops" :key="s.key">{{ s.text }}</li>
      </ul>
      <p v-for="r in result.referrals.filter((r) => !r.done)" :key="r.key" class="stop">{{ r.why.text }}</p>
      <p v-if="result.blocks.length">{{ count(result.blocks.length, 'step', 'steps') }} blocked by the body.</p>
      <p v-if="one?.start">
        Start with <b>{{ one.start.name }}</b>, in {{ one.school.school }}.
      </p>
      <p v-if="result.first.length">First: {{ result.first.map((s) => s.name).join(', ') }}.</p>
      <p v-if="result.mismatch" class="stop">{{ result.mismatch.text }}</p>
    </template>
    <p class="quiet small">This does not replace a vet, a dentist, a farrier or a saddle fitter. In doubt, ask them first.</p>
  </aside>
</template>

<style scoped>
.causes li {
  display: flex;
  gap: var(--gap-2);
  align-items: flex-start;
}
.causes li + li {
  margin-top: var(--gap-2);
}
small {
  display: block;
}
.telling {
  border-top: var(--rule);
  border-bottom: var(--rule);
  padding: var(--gap-2) 0;
}
.go {
  min-height: var(--control);
  border: 2px solid var(--slate);
  border-radius: var(--radius);
  background: var(--slate);
  color: var(--ivory-0);
  padding: 0 var(--gap-3);
  font-weight: 600;
  cursor: pointer;
  justify-self: start;
}
.stops,
.stop {
  color: var(--rust);
  font-weight: 600;
}
summary {
  cursor: pointer;
}
</style>
