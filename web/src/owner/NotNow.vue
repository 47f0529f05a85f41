<script setup lang="ts">
// What is not done now: words beside a barred field.
</script>

<template>
  <p class="not">
    <svg width="30" height="30" viewBox="0 0 30 30" aria-hidden="true">
      <rect x="3" y="7" width="24" height="16" />
      <path d="M4 26L26 4" />
    </svg>
    <span><slot /></span>
  </p>
</template>

<style scoped>
.not {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 48px;
  padding: var(--gap-2) var(--gap-3);
  background: var(--ivory-2);
  border-bottom: 2px solid;
  font-weight: 700;
}
.not span::first-letter {
  text-transform: uppercase;
}
svg {
  flex: none;
  fill: var(--ivory-0);
  stroke: currentcolor;
  stroke-width: 2.6;
}
path {
  stroke-width: 4;
}
</style>
