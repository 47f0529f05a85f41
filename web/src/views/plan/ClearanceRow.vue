<script setup lang="ts">
// How far a person is with one step, and the sheet to rehearse it.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import KnotShape from '../../parts/KnotShape.vue'
import RehearsalForm from '../../cases/RehearsalForm.vue'

const { state, name, who, caseId, words } = defineProps<{
  state: Schemas['ClearanceState']
  name: string
  who: string
  caseId: string
  words: Schemas['Clearances']
}>()
const emit = defineEmits<{ kept: [now: Schemas['Clearances']] }>()
const open = ref(false)

function kept(now: Schemas['Clearances']) {
  open.value = false
  emit('kept', now)
}
</script>

<template>
  <li class="state">
    <div class="row between">
      <span>
        <b>{{ name }}</b>
        <span v-if="state.cleared" class="cleared">cleared</span>
      </span>
      <span class="small">
        <span :class="{ strong: state.rehearsed }">{{ state.rehearsed ? 'rehearsed' : 'not rehearsed' }}</span> ·
        <span :class="{ strong: state.watched >= words.watched_run }"
          >watched {{ state.watched }} of {{ words.watched_run }}</span
        >
        <svg
          :viewBox="`0 0 ${words.watched_run * 16} 12`"
          :width="words.watched_run * 16"
          height="12"
          aria-hidden="true"
          class="knots"
        >
          <KnotShape
            v-for="n in words.watched_run"
            :key="n"
            :state="n <= state.watched ? 'tied' : 'dashed'"
            :x="n * 16 - 8"
            :y="6"
          />
        </svg>
      </span>
    </div>
    <p v-if="state.fainter" class="small strong">The partner felt 2 or more less than was meant.</p>
    <template v-if="!state.cleared">
      <p v-for="w in state.why" :key="w.key" class="small quiet">{{ w.text }}</p>
    </template>
    <ElButton v-if="!open" link @click="open = true">
      Rehearse<span class="visually-hidden"> {{ name }} with {{ who }}</span>
    </ElButton>
    <RehearsalForm
      v-else
      :case-id="caseId"
      :person="state.person"
      :step="state.step"
      :words="words"
      @kept="kept"
      @leave="open = false"
    />
  </li>
</template>

<style scoped>
.knots {
  display: inline-block;
  margin-left: var(--gap-1);
  vertical-align: middle;
}
.state {
  border-top: var(--line);
  padding: var(--gap-2) 0;
}
.cleared {
  color: var(--pasture-deep);
  font-weight: 700;
  margin-left: var(--gap-2);
}
</style>
