<script setup lang="ts">
// A named spot that is passed: which, which way, and how often it tried to turn to it.
import { computed, ref } from 'vue'
import type { Schemas } from '../../../api/types'
import ChipRow from '../../../parts/ChipRow.vue'
import ArenaSheet from '../ArenaSheet.vue'

const { before, out } = defineProps<{ before: Schemas['ArenaSpot'][]; out: boolean }>()
const emit = defineEmits<{ spot: [spot: { spot: string; tries: number; heading: 'home' | 'away' }]; close: [] }>()
const name = ref('')
const tries = ref(0)
const known = computed(() => [...new Set(before.map((s) => s.name))].map((n) => ({ value: n, text: n })))
const counts = [0, 1, 2, 3, 4, 5].map((n) => ({ value: n, text: n === 0 ? 'not at all' : n === 5 ? '5 and more' : String(n) }))
</script>

<template>
  <ArenaSheet title="A named spot" @close="emit('close')">
    <ChipRow v-if="known.length" big label="Which" :choices="known" :chosen="[name]" @toggle="name = String($event)" />
    <label class="which">
      Which spot?
      <input v-model="name" maxlength="60" placeholder="hay barn corner" />
    </label>
    <p>How often did it try to turn to it?</p>
    <ChipRow big label="Tries" :choices="counts" :chosen="[tries]" @toggle="tries = Number($event)" />
    <button
      type="button"
      class="keep"
      :disabled="!name.trim()"
      @click="emit('spot', { spot: name.trim(), tries, heading: out ? 'away' : 'home' })"
    >
      Keep it
    </button>
  </ArenaSheet>
</template>

<style scoped>
.which {
  display: grid;
  gap: var(--gap-1);
}
input,
.keep {
  min-height: var(--touch);
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font: inherit;
}
.keep {
  font-weight: 700;
  cursor: pointer;
}
</style>
