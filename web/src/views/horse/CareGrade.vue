<script setup lang="ts">
// The risk grade in words; opened, its reasons and the precautions it brings.
import type { Schemas } from '../../api/types'
import { count } from '../../words'

const { risk, precautions } = defineProps<{ risk: Schemas['AssessRisk']; precautions: Schemas['PhraseMessage'][] }>()
</script>

<template>
  <details class="care">
    <summary>
      <b>{{ risk.care }}</b>
      <span class="small">{{ count(risk.points, 'point', 'points') }}<span class="wide-only">: why, and what it asks</span></span>
    </summary>
    <div class="open stack">
      <div>
        <h3>Why</h3>
        <p v-if="!risk.lines?.length" class="quiet">Nothing known that adds to the risk. What was not looked at may.</p>
        <ul class="dots">
          <li v-for="l in risk.lines" :key="l.why.text">{{ l.why.text }} ({{ l.points }})</li>
        </ul>
      </div>
      <div>
        <h3>Precautions</h3>
        <ul class="dots">
          <li v-for="p in precautions" :key="p.key">{{ p.text }}</li>
        </ul>
      </div>
    </div>
  </details>
</template>

<style scoped>
.care {
  position: relative;
}
summary {
  display: grid;
  justify-items: end;
  align-content: end;
  min-height: 44px;
  list-style: none;
  cursor: pointer;
  line-height: 1.25;
}
summary::-webkit-details-marker {
  display: none;
}
summary b {
  font-size: 1rem;
}
summary .small {
  color: var(--ink-2);
  text-decoration: underline;
}
.open {
  position: absolute;
  right: 0;
  z-index: 4;
  width: min(420px, calc(100vw - 2 * var(--side)));
  margin-top: var(--gap-1);
  padding: var(--gap-3);
  background: var(--ivory-0);
  border: var(--rule);
  border-radius: var(--radius);
}
</style>
