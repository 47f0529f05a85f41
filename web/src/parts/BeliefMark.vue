<script setup lang="ts">
// How far a cause is believed in, as a post: full, half, empty, dashed.
const { belief } = defineProps<{ belief: string }>()
</script>

<template>
  <svg viewBox="0 0 12 24" class="post" :class="belief.replaceAll(' ', '-')" aria-hidden="true">
    <rect x="1.5" y="1.5" width="9" height="21" class="frame" />
    <rect v-if="belief === 'likely'" x="1.5" y="1.5" width="9" height="21" class="fill" />
    <rect v-else-if="belief === 'possible'" x="1.5" y="12" width="9" height="10.5" class="fill" />
    <path v-else-if="belief === 'unlikely'" d="M1.5 22.5h9" class="base" />
  </svg>
</template>

<style scoped>
.post {
  width: 12px;
  height: 24px;
  flex: none;
}
.frame {
  fill: var(--ivory-0);
  stroke: var(--ink-1);
  stroke-width: 1.5;
}
.not-looked-at .frame,
.not-enough-seen .frame {
  stroke-dasharray: 3 2.5;
  stroke: var(--ink-2);
}
.fill {
  fill: var(--leather);
}
.base {
  stroke: var(--ink-1);
  stroke-width: 4;
}
</style>
