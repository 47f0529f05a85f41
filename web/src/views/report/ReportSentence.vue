<script setup lang="ts">
// One sentence: as written from the log, or as the trainer words it.
import type { Schemas } from '../../api/types'

const { sentence, edit, editing } = defineProps<{
  sentence: Schemas['ReportSentence']
  edit?: Schemas['ReportEdit']
  editing: boolean
}>()
const emit = defineEmits<{ change: [change: Partial<Schemas['ReportEdit']>]; reset: [] }>()
</script>

<template>
  <div v-if="editing" class="editing">
    <ElInput
      :model-value="edit?.text ?? sentence.said.text"
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
      <ElButton v-if="edit" link @click="emit('reset')">back to the product's words</ElButton>
      <span v-if="sentence.changed" class="changed"
        >Its numbers have changed since it was worded. Now: {{ sentence.said.text }}</span
      >
    </div>
  </div>
  <p v-else>
    {{ edit?.text || sentence.said.text }}
    <span v-if="sentence.changed" class="changed no-print">its numbers have changed since</span>
  </p>
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
</style>
