<script setup lang="ts">
// The risk grade; opened, its reasons and the precautions it brings.
import type { Schemas } from '../../api/types'

const { risk, precautions } = defineProps<{ risk: Schemas['AssessRisk']; precautions: Schemas['PhraseMessage'][] }>()
</script>

<template>
  <details class="care" :class="risk.care.replace(' ', '-')">
    <summary>
      {{ risk.care }} <span class="points">{{ risk.points }}</span>
    </summary>
    <div class="sheet open stack">
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
  list-style: none;
  cursor: pointer;
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  min-height: var(--control);
  display: grid;
  grid-auto-flow: column;
  gap: var(--gap-2);
  align-items: center;
  font-weight: 700;
}
summary::-webkit-details-marker {
  display: none;
}
.extra-care summary {
  border-color: var(--ochre);
}
.high-care summary,
.specialist-only summary {
  border-color: var(--rust);
}
.points {
  font-weight: 400;
}
.open {
  position: absolute;
  right: 0;
  z-index: 3;
  width: min(420px, calc(100vw - 2 * var(--gap-3)));
  margin-top: var(--gap-1);
  border: var(--rule);
}
@media (max-width: 720px) {
  .open {
    left: 0;
    right: auto;
  }
}
</style>
