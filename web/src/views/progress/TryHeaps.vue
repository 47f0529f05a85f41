<script setup lang="ts">
// Every try behind it: one heap a session, the worst answers at the bottom.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import AnswerShape from '../../parts/AnswerShape.vue'
import { count, dayMonth } from '../../words'

const { heaps, marked } = defineProps<{ heaps: Schemas['ProgressHeap'][]; marked: string }>()
const emit = defineEmits<{ mark: [session: string] }>()

const names = ['refused', 'try', 'tolerated', 'accepted', 'offered']
const newest = 9
const shown = computed(() =>
  heaps.slice(-newest).map((h) => {
    const tries = h.answers.flatMap((n, i) => Array.from({ length: n }, () => names[i] ?? ''))
    return {
      ...h,
      tries,
      says: h.answers
        .map((n, i) => (n ? `${n} ${names[i]}` : ''))
        .filter(Boolean)
        .join(', '),
    }
  }),
)
</script>

<template>
  <div class="heaps">
    <button
      v-for="h in shown"
      :key="h.session"
      type="button"
      :class="{ here: h.session === marked }"
      :aria-pressed="h.session === marked"
      @click="emit('mark', h.session)"
    >
      <span class="heap" aria-hidden="true">
        <AnswerShape v-for="(a, i) in h.tries" :key="i" :answer="a" width="10" height="10" />
      </span>
      <span class="day">{{ dayMonth(h.on) }}</span>
      <span class="small">{{ count(h.tries.length, 'try', 'tries') }}</span>
      <span class="visually-hidden">{{ h.says }}</span>
    </button>
    <p v-if="heaps.length > newest" class="quiet small">the newest {{ newest }} of {{ heaps.length }} sessions</p>
  </div>
</template>

<style scoped>
.heaps {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--gap-1);
}
button {
  display: grid;
  justify-items: center;
  border: 1.5px solid transparent;
  background: none;
  padding: var(--gap-1);
  cursor: pointer;
  font: inherit;
  color: inherit;
}
.here {
  border-color: var(--ink-1);
  background: var(--ivory-1);
}
.heap {
  display: flex;
  flex-wrap: wrap-reverse;
  gap: 2px;
  width: 48px;
}
.day {
  font-weight: 600;
}
</style>
