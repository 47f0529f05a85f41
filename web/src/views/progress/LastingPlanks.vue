<script setup lang="ts">
// What was still there on a later day: a plank a look, broken where it slipped, by the
// days between. Three looks look like three.
import type { Schemas } from '../../api/types'
import PlankShape from '../../parts/PlankShape.vue'
import { dayMonth } from '../../words'

const { gaps, marked } = defineProps<{ gaps: Schemas['ProgressGap'][]; marked: string }>()
const emit = defineEmits<{ mark: [session: string] }>()

const board = 30
const most = 7
type Gap = (typeof gaps)[number]
const slipped = (g: Gap) => g.checks.filter((c) => !c.kept)
const tells = (g: Gap) => slipped(g).map((c) => `${c.name.text}, ${dayMonth(c.on)}`)
</script>

<template>
  <ul>
    <li v-for="g in gaps" :key="g.from">
      <p class="row between">
        <b>{{ g.says.text }}</b>
        <b v-if="g.checks.length">{{ g.kept }} of {{ g.checks.length }}</b>
        <span v-else class="quiet">not looked at</span>
      </p>
      <p class="boards">
        <svg v-if="!g.checks.length" :viewBox="`-1 -1 ${board + 2} 14`" :width="board + 2" aria-hidden="true">
          <PlankShape state="untried" :width="board" :height="12" small />
        </svg>
        <button
          v-for="(c, i) in g.checks.slice(-most)"
          :key="i"
          type="button"
          :class="{ here: c.session === marked }"
          @click="emit('mark', c.session)"
        >
          <svg :viewBox="`-1 -1 ${board + 2} 16`" :width="board + 2" aria-hidden="true">
            <PlankShape :state="c.kept ? 'kept' : 'slipped'" :width="board" :height="12" small />
          </svg>
          <span class="visually-hidden">{{ c.name.text }}, {{ dayMonth(c.on) }}: {{ c.kept ? 'kept' : 'slipped' }}</span>
        </button>
      </p>
      <p v-if="g.checks.length > most" class="quiet small">the newest {{ most }} of {{ g.checks.length }}</p>
      <p v-if="slipped(g).length" class="quiet small">slipped: {{ tells(g).slice(-2).join('; ') }}</p>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: var(--gap-2);
}
.boards {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
button {
  border: 0;
  padding: 4px 0;
  background: none;
  cursor: pointer;
}
.here {
  outline: var(--focus);
}
</style>
