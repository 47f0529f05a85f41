<script setup lang="ts">
// Something typed: a text, a number or a day. It is given on as soon as one
// pauses or leaves the field, so that a reload loses nothing.
import { useDebounceFn } from '@vueuse/core'
import { ref, watch } from 'vue'

const {
  value,
  kind,
  id = undefined,
  long = false,
} = defineProps<{ value: unknown; kind: 'text' | 'number' | 'date'; id?: string; long?: boolean }>()
const emit = defineEmits<{ put: [value: unknown] }>()

const written = (v: unknown) => (v === undefined || v === null ? '' : String(v))
const draft = ref(written(value))
let given = draft.value

watch(
  () => written(value),
  (v) => {
    if (v !== given) draft.value = v
    given = v
  },
)

function give() {
  const text = draft.value.trim()
  if (text === given.trim()) return
  given = text
  if (text === '') emit('put', null)
  else if (kind !== 'number') emit('put', text)
  else {
    const n = Number(text.replace(',', '.'))
    emit('put', Number.isNaN(n) ? text : n)
  }
}
const soon = useDebounceFn(give, 400)

function type(text: string) {
  draft.value = text
  void soon()
}
</script>

<template>
  <ElInput
    :id="id"
    :model-value="draft"
    :type="kind === 'date' ? 'date' : long ? 'textarea' : 'text'"
    :rows="2"
    :inputmode="kind === 'number' ? 'decimal' : undefined"
    @update:model-value="type"
    @change="give"
  />
</template>
