<script setup lang="ts">
// What the rules make of the assessment as it stands.
import type { Schemas } from '../../api/client'
import { count } from '../../words'

const { result, saved } = defineProps<{ result?: Schemas['Result']; saved: boolean }>()
</script>

<template>
  <aside class="sheet stack result" aria-live="polite">
    <h2>What follows</h2>
    <p v-if="!result" class="quiet">It builds up here while you note what you found.</p>
    <template v-else>
      <p v-if="!saved" class="quiet small">As typed, not saved yet.</p>
      <div>
        <p class="grade">
          {{ result.risk.care }} <span class="quiet">{{ count(result.risk.points, 'point', 'points') }}</span>
        </p>
        <ul class="dots">
          <li v-for="l in result.risk.lines" :key="l.why.text">{{ l.why.text }} ({{ l.points }})</li>
        </ul>
      </div>
      <div v-if="result.start_name">
        <h3>Where to start on the ladder</h3>
        <p>
          <b>{{ result.start_name }}</b>: {{ result.start_ask }}. Missing foundations come first.
        </p>
      </div>
      <div v-if="result.referrals.length">
        <h3>Whom to call first</h3>
        <ul class="dots">
          <li v-for="r in result.referrals" :key="r.item">{{ r.why.text }}</li>
        </ul>
      </div>
      <div v-if="result.blocks.length">
        <h3>Barred until then</h3>
        <p>{{ result.blocks.length }} steps. {{ result.blocks[0]?.why.text }} {{ result.blocks[0]?.lifts.text }}</p>
      </div>
      <div v-if="result.unlooked.length">
        <h3>Not looked at</h3>
        <p>{{ result.unlooked.map((u) => u.text).join(', ') }}. None of it is clear.</p>
      </div>
      <div>
        <h3>Precautions</h3>
        <ul class="dots">
          <li v-for="p in result.precautions" :key="p.key">{{ p.text }}</li>
        </ul>
      </div>
    </template>
    <p class="quiet small">This does not replace a vet, a dentist, a farrier or a saddle fitter. In doubt, ask them first.</p>
  </aside>
</template>

<style scoped>
.result {
  position: sticky;
  top: var(--gap-3);
}
.grade {
  font: 700 var(--step-3) / 1.2 var(--font-head);
}
.grade .quiet {
  font: 400 var(--step-1) var(--font-ui);
}
@media (max-width: 1000px) {
  .result {
    position: static;
  }
}
</style>
