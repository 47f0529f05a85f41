<script setup lang="ts">
// One of all asks, chosen from a list: this horse's first.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'

const { asks, none, id, label } = defineProps<{
  asks: Schemas['ArenaChoice'][]
  /** What nothing chosen reads as. */
  none: string
  id?: string
  label?: string
}>()
const step = defineModel<string>({ required: true })

const groups = computed(() =>
  [...new Set(asks.map((a) => a.group))].map((group) => ({ group, asks: asks.filter((a) => a.group === group) })),
)
</script>

<template>
  <select :id="id" v-model="step" :aria-label="label">
    <option value="">{{ none }}</option>
    <optgroup v-for="g in groups" :key="g.group" :label="g.group">
      <option v-for="a in g.asks" :key="a.ask.step" :value="a.ask.step">{{ a.name }} ({{ a.ladder }}, {{ a.says.text }})</option>
    </optgroup>
  </select>
</template>

<style scoped>
select {
  width: min(22rem, 80vw);
}
</style>
