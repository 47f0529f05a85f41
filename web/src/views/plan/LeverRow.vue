<script setup lang="ts">
// One lever: what it is, how far it reaches, and a way to try it.
const { says, p = undefined } = defineProps<{ says: string; p?: number }>()
</script>

<template>
  <li class="lever">
    <span>{{ says }}</span>
    <svg v-if="p !== undefined" viewBox="0 0 100 10" class="fill" preserveAspectRatio="none" aria-hidden="true">
      <rect width="100" height="10" class="well" />
      <rect :width="p * 100" height="10" class="reach" />
      <path d="M85 0V10" class="enough" />
    </svg>
    <span class="row tries"><slot /></span>
  </li>
</template>

<style scoped>
.lever {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: var(--gap-2) var(--gap-3);
  align-items: center;
}
.fill {
  width: 110px;
  height: 14px;
}
.well {
  fill: var(--ivory-2);
}
.reach {
  fill: var(--pasture);
}
.enough {
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.tries {
  justify-content: end;
}
@media (max-width: 640px) {
  .lever {
    grid-template-columns: minmax(0, 1fr);
  }
  .tries {
    justify-content: start;
  }
}
</style>
