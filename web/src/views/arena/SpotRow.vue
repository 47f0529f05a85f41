<script setup lang="ts">
// The named place that is passed, which way, and how often it tried to turn there.
import { useId } from 'vue'
import type { Schemas } from '../../api/types'

export interface Passed {
  spot: string
  heading: Schemas['TrackRep']['heading']
  drawn: number
}

const { before } = defineProps<{ before: Schemas['ArenaSpot'][] }>()
const passed = defineModel<Passed>({ required: true })
const id = useId()
const ways = ['away', 'home'] as const
const turn = () => (passed.value = { ...passed.value, heading: passed.value.heading === 'home' ? ways[0] : ways[1] })
</script>

<template>
  <div class="spot">
    <label :for="id">Past</label>
    <input
      :id="id"
      :value="passed.spot"
      class="name"
      maxlength="60"
      placeholder="which place?"
      :list="`${id}-before`"
      @input="passed = { ...passed, spot: ($event.target as HTMLInputElement).value }"
    />
    <datalist :id="`${id}-before`">
      <option v-for="name in new Set(before.map((s) => s.name))" :key="name" :value="name" />
    </datalist>
    <button type="button" class="small-key" @click="turn">heading {{ passed.heading || 'which way?' }}</button>
    <button type="button" class="small-key" @click="passed = { ...passed, drawn: passed.drawn + 1 }">
      tried to turn: {{ passed.drawn }}
    </button>
  </div>
</template>

<style scoped src="./smallKey.css"></style>
<style scoped>
.spot {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-2);
  font-size: var(--step-1);
}
.name {
  flex: 1 1 160px;
  min-height: var(--touch);
  min-width: 0;
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  font: inherit;
}
</style>
