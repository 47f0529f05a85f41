<script setup lang="ts">
// Until where a problem's bridge is wanted: one of its planks.
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'

const {
  choice,
  alone,
  wrong = '',
} = defineProps<{
  choice: Schemas['ProblemChoice']
  /** It is the only problem. */
  alone: boolean
  wrong?: string
}>()
const until = defineModel<string | undefined>({ required: true })

const last = computed(() => choice.planks.at(-1)?.step)
const plank = computed(() => choice.planks.find((p) => p.step === (until.value ?? last.value)))
function end(step: string) {
  until.value = step === last.value ? undefined : step
}
</script>

<template>
  <FieldRow
    :label="alone ? 'How far does the owner need it?' : `How far: ${choice.name.text}`"
    :hint="plank && `Until ${plank.name}: ${plank.plain}${plank.ridden ? ', ridden' : ''}`"
    :wrong="wrong"
  >
    <ChipRow
      :label="`How far: ${choice.name.text}`"
      :choices="choice.planks.map((p) => ({ value: p.step, text: p.name }))"
      :chosen="plank ? [plank.step] : []"
      @toggle="end"
    />
  </FieldRow>
</template>
