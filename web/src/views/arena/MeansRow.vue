<script setup lang="ts">
// Where an ask escalates through aids: which of them was reached, and how firm,
// in words.
import type { Schemas } from '../../api/types'
import type { Measured } from './MeasureRow.vue'

const { card, value, level } = defineProps<{ card: Schemas['ArenaCard']; value: Measured; level: number }>()
const emit = defineEmits<{ change: [value: Measured]; tap: [level: number] }>()

/** The words of part 2, each at the level it stands for. */
const words = [
  { text: 'light', level: 2 },
  { text: 'medium', level: 5 },
  { text: 'firm', level: 8 },
]

function firm(at: number) {
  emit('change', { ...value, in_words: true })
  emit('tap', at)
}
</script>

<template>
  <div class="means">
    <div class="keys" role="group" aria-label="Means reached">
      <button
        v-for="(m, i) in card.means"
        :key="m"
        type="button"
        class="small-key"
        :aria-pressed="value.means === i + 1"
        @click="emit('change', { ...value, means: value.means === i + 1 ? undefined : i + 1 })"
      >
        {{ m }}
      </button>
    </div>
    <div class="keys" role="group" aria-label="How firm">
      <button
        v-for="w in words"
        :key="w.text"
        type="button"
        class="small-key"
        :aria-pressed="value.in_words && level === w.level"
        @click="firm(w.level)"
      >
        {{ w.text }}
      </button>
    </div>
  </div>
</template>

<style scoped src="./smallKey.css"></style>

<style scoped>
.means {
  display: grid;
  gap: var(--gap-2);
  margin-top: var(--gap-2);
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: var(--gap-2);
}
</style>
