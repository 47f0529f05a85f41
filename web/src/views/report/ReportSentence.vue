<script setup lang="ts">
// One sentence: as written from the log, or as the trainer words it; tapped, it shows
// what it stands on. An incident is left out with a reason only.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import { clockTime } from '../../words'

const { sentence, edit, editing, page, wrong } = defineProps<{
  sentence: Schemas['ReportSentence']
  edit?: Schemas['ReportEdit']
  editing: boolean
  /** The page it stands on: the visit's with what was logged, or the last one. */
  page: { session?: string; horse: { id: string }; reps?: Schemas['RepBehind'][] | null }
  wrong?: string
}>()
const emit = defineEmits<{ change: [change: Partial<Schemas['ReportEdit']>]; reset: [] }>()

const open = ref(false)
const reps = computed(() => {
  const ids = new Set(sentence.behind.entries ?? [])
  return (page.reps ?? []).filter((r) => ids.has(r.id))
})
const places: Record<string, [name: string, to: string]> = {
  session: page.session ? ['the session', `/arena/${page.session}/after`] : ['the sessions', `/horses/${page.horse.id}/sessions`],
  assessment: ['the assessment', `/horses/${page.horse.id}/assessment`],
  plan: ['the plan', `/horses/${page.horse.id}/plan`],
  homework: ['homework and clearance', `/horses/${page.horse.id}/plan?see=clearance`],
  horse: ['the bridge', `/horses/${page.horse.id}`],
}
const place = computed(
  (): [name: string, to: string] => places[sentence.behind.place] ?? ['the bridge', `/horses/${page.horse.id}`],
)
</script>

<template>
  <div v-if="editing" class="editing">
    <ElInput
      :model-value="edit?.text || sentence.said.text"
      type="textarea"
      autosize
      maxlength="1000"
      :disabled="edit?.left_out"
      :aria-label="`Sentence: ${sentence.said.text}`"
      @update:model-value="emit('change', { text: $event })"
    />
    <div class="row small">
      <ElCheckbox :model-value="edit?.left_out ?? false" @update:model-value="emit('change', { left_out: !!$event })"
        >leave it out</ElCheckbox
      >
      <ElInput
        v-if="edit?.left_out"
        :model-value="edit.reason ?? ''"
        class="reason"
        size="small"
        maxlength="500"
        :placeholder="sentence.grave ? 'why; it stays on record' : 'why, if you like'"
        aria-label="Why it is left out"
        @update:model-value="emit('change', { reason: $event })"
      />
      <ElButton v-if="edit" link @click="emit('reset')">back to the product's words</ElButton>
      <span v-if="sentence.changed" class="changed"
        >Its numbers have changed since it was worded. Now: {{ sentence.said.text }}</span
      >
    </div>
    <p v-if="wrong" class="changed" role="alert">{{ wrong }}</p>
  </div>
  <div v-else class="said">
    <p>
      {{ edit?.text || sentence.said.text }}
      <span v-if="sentence.changed" class="changed no-print">its numbers have changed since</span>
      <button type="button" class="why no-print" :aria-expanded="open" @click="open = !open">
        why<span class="visually-hidden"> it says: {{ sentence.said.text }}</span>
      </button>
    </p>
    <div v-if="open" class="behind small no-print">
      <ul v-if="reps.length">
        <li v-for="r in reps" :key="r.id">
          {{ clockTime(r.at) }} {{ r.ask }}: {{ r.answer }}<template v-if="r.level != null">, level {{ r.level }}</template
          ><template v-if="r.ways?.length">, {{ r.ways.join(', ') }}</template>
        </li>
      </ul>
      <p>
        It stands on <RouterLink :to="place[1]">{{ place[0] }}</RouterLink>.
      </p>
    </div>
  </div>
</template>

<style scoped>
.editing {
  margin-bottom: var(--gap-2);
}
.changed {
  color: var(--rust);
  font-weight: 600;
  font-size: var(--step-0);
}
.reason {
  width: 240px;
}
.why {
  border: 0;
  background: none;
  padding: 0 var(--gap-1);
  font: inherit;
  font-size: var(--step-0);
  color: var(--slate);
  text-decoration: underline;
  cursor: pointer;
}
.behind {
  border-left: var(--rule);
  padding-left: var(--gap-3);
  margin-bottom: var(--gap-2);
}
</style>
