<script setup lang="ts">
// What is closed until somebody has looked, and what stays open meanwhile.
import type { Schemas } from '../../api/types'
import GateDrawing from '../../parts/GateDrawing.vue'

const { gate } = defineProps<{ gate: Schemas['AssessGate'] }>()
</script>

<template>
  <section class="gate" aria-label="What is closed, and what stays open">
    <GateDrawing :state="gate.state" />
    <div class="says">
      <p v-if="gate.state === 'tied'" class="forbidden">Forbidden until it is cleared</p>
      <p class="lead" :class="{ long: gate.says.length > 1 }">{{ gate.says.map((s) => s.text).join(' ') }}</p>
      <p v-for="u in gate.until.slice(0, 2)" :key="u.text">{{ u.text }}</p>
    </div>
    <p v-if="gate.open.length" class="open"><b>Open meanwhile:</b> {{ gate.open.map((o) => o.text).join('; ') }}.</p>
  </section>
</template>

<style scoped>
.gate {
  display: grid;
  grid-template-columns: 130px minmax(0, 1fr) minmax(0, 310px);
  align-items: center;
  gap: 18px;
  padding: 6px 0;
}
.gate :deep(.yard-gate) {
  width: 130px;
  height: 71px;
}
.says {
  line-height: 1.35;
}
.says p::first-letter {
  text-transform: uppercase;
}
.forbidden {
  font-weight: 700;
  color: var(--rust);
}
.lead.long {
  font-size: 1.1875rem;
}
.open {
  padding-left: 18px;
  border-left: var(--line);
  font-size: 0.9375rem;
  line-height: 1.35;
}
@media (max-width: 900px) {
  .gate {
    grid-template-columns: 92px minmax(0, 1fr);
    gap: 8px 12px;
  }
  .gate :deep(.yard-gate) {
    width: 92px;
    height: 50px;
  }
  .open {
    grid-column: 1 / -1;
    padding: 0;
    border: 0;
  }
}
</style>
