<script setup lang="ts">
// What goes in the truck, once for the whole day, with the stops that need it. What is
// missing comes first and bolder.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'

const { kit, stops, has } = defineProps<{ kit: Schemas['Thing'][]; stops: number; has: (name: string) => boolean }>()
const emit = defineEmits<{ tick: [name: string] }>()
const ordered = computed(() => [...kit.filter((k) => !has(k.name)), ...kit.filter((k) => has(k.name))])
const packed = computed(() => kit.filter((k) => has(k.name)).length)
</script>

<template>
  <section>
    <h2>
      In the truck <span class="quiet">{{ packed }} of {{ kit.length }}</span>
    </h2>
    <p v-if="kit.length === 0" class="quiet">Nothing is asked for: no plan stands behind these visits.</p>
    <ul>
      <li v-for="k in ordered" :key="k.name" class="thing" :class="{ in: has(k.name) }">
        <label>
          <input type="checkbox" :checked="has(k.name)" @change="emit('tick', k.name)" />
          <span class="name">{{ k.name }}</span>
        </label>
        <span class="visually-hidden">for {{ (k.for ?? []).join(', ') }}</span>
        <span class="dots">
          <span v-for="n in stops" :key="n" aria-hidden="true">{{ k.for?.includes(n) ? n : '–' }}</span>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font-size: var(--part);
  color: var(--leather);
}
h2 .quiet {
  font: 400 var(--step-1) var(--font-ui);
}
.thing {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--gap-2);
  border-top: var(--line);
  min-height: 34px;
}
.thing:not(.in) .name {
  font-weight: 700;
}
label {
  display: flex;
  align-items: center;
  gap: var(--gap-2);
  flex: 1;
  min-height: inherit;
  cursor: pointer;
}
input {
  width: 20px;
  height: 20px;
  accent-color: var(--pasture-deep);
}
.dots {
  display: flex;
  gap: 8px;
  font-variant-numeric: tabular-nums;
}
@media screen and (max-width: 720px) {
  .thing {
    min-height: var(--touch);
  }
  input {
    width: 28px;
    height: 28px;
  }
}
</style>
