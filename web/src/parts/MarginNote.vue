<script setup lang="ts">
// Something that wants attention, as a note in the margin: a sign and a verb.
const { urgent = false } = defineProps<{ urgent?: boolean }>()
</script>

<template>
  <p class="note" :class="{ urgent }">
    <svg viewBox="0 0 16 16" class="sign" aria-hidden="true">
      <path v-if="urgent" d="M8 1L15.5 14.5H.5z" class="flag" />
      <circle v-else cx="8" cy="8" r="4" class="spot" />
      <path v-if="urgent" d="M8 5.5V10M8 11.6V13" class="bang" />
    </svg>
    <span><slot /></span>
  </p>
</template>

<style scoped>
.note {
  display: grid;
  grid-template-columns: 1.3em 1fr;
  gap: var(--gap-2);
  font-size: var(--step-1);
}
.sign {
  width: 1em;
  height: 1em;
  margin-top: 0.2em;
}
.spot {
  fill: var(--ochre);
}
.flag {
  fill: var(--rust);
}
.bang {
  stroke: var(--ivory-0);
  stroke-width: 1.8;
}
.urgent {
  font-weight: 600;
}
</style>
