<script setup lang="ts">
// A stopwatch: one tap starts it, one tap stops it and gives the seconds.
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

const { seconds = undefined, label } = defineProps<{ seconds?: number; label: string }>()
const emit = defineEmits<{ stop: [seconds: number] }>()

const since = ref(0)
const now = ref(0)
const { pause, resume } = useIntervalFn(() => (now.value = Date.now()), 100, { immediate: false })
const running = computed(() => since.value > 0)
const shown = computed(() => (running.value ? (now.value - since.value) / 1000 : (seconds ?? 0)).toFixed(1))

function tap() {
  now.value = Date.now()
  if (running.value) {
    pause()
    emit('stop', Math.round((now.value - since.value) / 100) / 10)
    since.value = 0
  } else {
    since.value = now.value
    resume()
  }
}
</script>

<template>
  <button type="button" class="watch" :class="{ running }" @click="tap">
    <span class="visually-hidden">{{ label }}: </span><b>{{ shown }}</b> s · {{ running ? 'stop' : 'start' }}
  </button>
</template>

<style scoped>
.watch {
  min-height: var(--control);
  min-width: 9em;
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  cursor: pointer;
}
.running {
  background: var(--ink-1);
  color: var(--ivory-0);
}
b {
  font: 700 var(--step-2) var(--font-head);
}
</style>
