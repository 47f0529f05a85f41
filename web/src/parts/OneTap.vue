<script setup lang="ts">
// The last line of a page: what is one tap away, always in the same place.
import type { RouteLocationRaw } from 'vue-router'
import { useLeaf, type Leaf } from './leaf'

const { leaves = [], front = '' } = defineProps<{
  leaves?: Leaf[]
  /** The name of the page itself, to turn back to. */
  front?: string
  links?: { to: RouteLocationRaw; name: string }[]
}>()
const { open, at } = useLeaf()
</script>

<template>
  <nav class="onetap no-print" aria-label="One tap away">
    <span class="says">One tap away:</span>
    <ul>
      <!-- the router would call each leaf of the page the page that is shown -->
      <li v-if="open && front">
        <RouterLink :to="at()" aria-current-value="false">back to {{ front }}</RouterLink>
      </li>
      <li v-for="l in leaves" :key="l.key">
        <b v-if="open === l.key" aria-current="page">{{ l.name }}</b>
        <RouterLink v-else :to="at(l.key)" aria-current-value="false">{{ l.name }}</RouterLink>
      </li>
      <li v-for="l in links" :key="l.name">
        <RouterLink :to="l.to">{{ l.name }}</RouterLink>
      </li>
      <slot />
    </ul>
  </nav>
</template>

<style scoped>
.onetap {
  position: sticky;
  bottom: 0;
  z-index: 1;
  display: flex;
  gap: 20px;
  margin-top: auto;
  background: var(--ivory-0);
  border-top: var(--line);
  color: var(--ink-2);
  line-height: var(--leaf-line);
}
.says {
  flex: none;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0 20px;
}
.onetap :deep(button) {
  background: none;
  border: 0;
  padding: 0;
  color: var(--slate);
  text-decoration: underline;
  cursor: pointer;
  line-height: inherit;
}
b {
  color: var(--ink-1);
}
@media (max-width: 1100px) {
  .onetap {
    line-height: var(--hand);
  }
}
@media screen and (max-width: 720px) {
  .onetap {
    position: static;
    display: block;
    margin-top: var(--gap-3);
    border-top: var(--rule);
  }
  ul {
    display: block;
  }
  li {
    border-top: var(--line);
  }
  .onetap :deep(a),
  .onetap :deep(button),
  b {
    display: block;
    width: 100%;
    min-height: 52px;
    line-height: 52px;
    text-align: left;
  }
}
</style>
