<script setup lang="ts">
// What the stones mean. The hatching of all stones on the page is defined here.
import StoneShape from './StoneShape.vue'

const kinds = ['seen', 'video', 'told']
</script>

<template>
  <ul class="key small" aria-label="What the stones mean">
    <li v-for="k in kinds" :key="k">
      <svg viewBox="-10 -16 20 18" width="20" height="18" aria-hidden="true"><StoneShape :r="8" :source="k" /></svg>{{ k }}
    </li>
    <li>
      <svg viewBox="0 0 22 14" width="22" height="14" aria-hidden="true">
        <rect x="1" y="1" width="20" height="11" class="doubt" /></svg
      >doubt
    </li>
    <svg width="0" height="0" aria-hidden="true" class="defs">
      <defs>
        <pattern id="stone-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" class="ground" />
          <path d="M0 0V5" class="hatch" />
        </pattern>
      </defs>
    </svg>
  </ul>
</template>

<style scoped>
.key {
  display: grid;
  grid-template-columns: 66px 1fr;
  gap: 0 var(--gap-2);
  color: var(--ink-2);
}
li {
  display: flex;
  align-items: center;
  gap: var(--gap-1);
}
.doubt {
  fill: var(--ivory-3);
  stroke: var(--ink-1);
  stroke-width: 1.2;
}
.ground {
  fill: var(--ivory-0);
}
.hatch {
  stroke: var(--leather);
  stroke-width: 3.4;
}
.defs {
  position: absolute;
}
</style>
