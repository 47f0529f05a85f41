<script setup lang="ts">
// One typed answer of the walk: its label, what is wrong with it, and its mark.
import FieldRow from '../../parts/FieldRow.vue'
import TypedAnswer from '../../parts/TypedAnswer.vue'
import type { Assessing } from '../../cases/useAssessment'

const {
  walk,
  path,
  label,
  kind = 'text',
} = defineProps<{
  walk: Assessing
  /** Where in the document it stands. */
  path: string
  label: string
  kind?: 'text' | 'number' | 'date'
}>()
</script>

<template>
  <FieldRow v-slot="f" :label="label" :wrong="walk.wrong(path)">
    <TypedAnswer :id="f.id" :kind="kind" :value="walk.typed(path)" @put="walk.mark(path, $event)" />
  </FieldRow>
</template>
