<script setup lang="ts">
// A number, or nothing. What is no number stays in the field and is sent as it
// is, so that the server can say what is wrong with it.
import { ref, watch } from 'vue'

const value = defineModel<number>()
const { id } = defineProps<{ id?: string }>()
const typed = ref(value.value === undefined ? '' : String(value.value))

watch(value, (v) => {
  if (v === undefined ? typed.value.trim() !== '' : Number(typed.value) !== v) typed.value = v === undefined ? '' : String(v)
})

function take(text: string) {
  typed.value = text
  const clean = text.trim().replace(',', '.')
  value.value = clean === '' || Number.isNaN(Number(clean)) ? undefined : Number(clean)
}
</script>

<template>
  <ElInput :id="id" :model-value="typed" inputmode="decimal" type="number" step="any" @update:model-value="take" />
</template>
