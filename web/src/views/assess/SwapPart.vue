<script setup lang="ts">
// Section E2: the same task, person and tack changed; how much is who.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import AnswerRow from '../../parts/AnswerRow.vue'
import LevelKeys from '../../parts/LevelKeys.vue'
import SwapTable from '../../parts/SwapTable.vue'
import type { Assessing } from '../../cases/useAssessment'
import SwapRows from './SwapRows.vue'

const { walk, problem } = defineProps<{ walk: Assessing; problem: string }>()

type Run = Schemas['AssessRun']
const words = computed(() => walk.data?.words)
const runs = computed(() =>
  (words.value?.run_keys ?? []).map((key, i) => ({ key: key as string, name: words.value?.runs[i]?.text ?? key })),
)
const run = (key: string) => walk.typed(`problems/${problem}/swap/${key}`) as Run | undefined
const open = ref('')
const now = computed(
  () => runs.value.find((r) => r.key === open.value) ?? runs.value.find((r) => !run(r.key)?.grade) ?? runs.value[0],
)
const swap = computed(() => walk.view?.result.problems.find((p) => p.problem === problem)?.swap)

function note(name: keyof Run, value: unknown) {
  if (!now.value) return
  open.value = name === 'level' ? now.value.key : ''
  walk.mark(`problems/${problem}/swap/${now.value.key}/${name}`, value)
}
</script>

<template>
  <div class="stack">
    <p>Only where it is safe. The same task, asked the same way.</p>
    <div class="row">
      <button v-for="r in runs" :key="r.key" type="button" class="run" :aria-pressed="now?.key === r.key" @click="open = r.key">
        {{ r.name
        }}<small>{{ run(r.key) ? `${run(r.key)?.grade || '?'}, level ${run(r.key)?.level ?? '?'}` : 'not tried' }}</small>
      </button>
    </div>
    <template v-if="now">
      <LevelKeys :label="`Level: ${now.name}`" :level="run(now.key)?.level" @tap="note('level', $event)" />
      <AnswerRow
        :label="`Answer: ${now.name}`"
        :answers="words?.answers ?? []"
        :given="run(now.key)?.grade"
        @tap="note('grade', $event)"
      />
    </template>
    <SwapRows :walk="walk" :problem="problem" />
    <SwapTable v-if="swap" :swap="swap" />
  </div>
</template>

<style scoped>
.run {
  min-height: var(--control);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: var(--gap-1) var(--gap-3);
  text-align: left;
  cursor: pointer;
}
.run[aria-pressed='true'] {
  border-color: var(--ink-1);
  background: var(--ivory-2);
  font-weight: 700;
}
small {
  display: block;
  font-weight: 400;
}
</style>
