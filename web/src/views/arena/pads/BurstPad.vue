<script setup lang="ts">
// Many asks seconds apart, mostly mounted: a tap for each, then one entry.
import { StorageSerializers, useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'

export type Bursted = Pick<Schemas['TrackBurst'], 'each'>

const { store } = defineProps<{ store: string }>()
const emit = defineEmits<{ burst: [burst: Bursted] }>()

/** Pulses of each ask: 0 on the touch, -1 no answer. */
const asks = useLocalStorage<number[]>(store, [], { serializer: StorageSerializers.object })
const touch = computed(() => asks.value.filter((p) => p === 0).length)

function end() {
  const each = asks.value
  asks.value = []
  if (each.length > 0) emit('burst', { each })
}
</script>

<template>
  <div class="pad" role="group" aria-label="Burst">
    <button type="button" @click="asks = [...asks, 0]">on the touch</button>
    <button v-for="p in [1, 2, 3]" :key="p" type="button" @click="asks = [...asks, p === 3 ? 4 : p]">
      {{ p === 3 ? '3 and more' : p }}<small>{{ p === 1 ? 'pulse' : 'pulses' }}</small>
    </button>
    <button type="button" @click="asks = [...asks, -1]">no answer</button>
    <button type="button" class="main" :disabled="asks.length === 0" @click="end">
      <span class="count">{{ touch }} of {{ asks.length }}</span
      ><small>on the touch: end of the burst</small>
    </button>
  </div>
</template>

<style scoped src="./pad.css"></style>
