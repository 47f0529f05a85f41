<script setup lang="ts">
// What may be asked next: what is open first; the rest says what it waits for.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import ArenaSheet from './ArenaSheet.vue'

const { asks, easy } = defineProps<{ asks: Schemas['AskChoice'][]; easy?: string }>()
const emit = defineEmits<{ choose: [ask: Schemas['HorseAsk']]; close: [] }>()

const open = computed(() => asks.filter((a) => a.open))
const shut = computed(() => asks.filter((a) => !a.open))
const sorted = computed(() => [...open.value].sort((a, b) => Number(b.ask.step === easy) - Number(a.ask.step === easy)))
</script>

<template>
  <ArenaSheet title="Ask something else" @close="emit('close')">
    <p v-if="easy">An easy one to finish on stands first.</p>
    <ul class="asks">
      <li v-for="a in sorted" :key="a.ask.step">
        <button type="button" @click="emit('choose', a.ask)">
          <b>{{ a.name }}</b> <span>{{ a.ladder }} · {{ a.state }}</span>
        </button>
      </li>
    </ul>
    <details v-if="shut.length">
      <summary>{{ shut.length }} not open yet</summary>
      <ul class="shut">
        <li v-for="a in shut" :key="a.ask.step">
          <b>{{ a.name }}</b>
          <span v-if="a.blocked"> {{ a.blocked.text }} {{ a.lifts?.text }}</span>
          <span v-else> waits for {{ a.needs?.join(', ') }}.</span>
        </li>
      </ul>
    </details>
  </ArenaSheet>
</template>

<style scoped>
.asks {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(240px, 100%), 1fr));
  gap: var(--gap-2);
}
button {
  width: 100%;
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  text-align: left;
  padding: var(--gap-1) var(--gap-3);
  display: grid;
  cursor: pointer;
}
button span {
  font-size: var(--step-1);
}
.shut {
  font-size: var(--step-1);
  display: grid;
  gap: var(--gap-1);
}
summary {
  min-height: var(--touch);
  align-content: center;
  cursor: pointer;
}
</style>
