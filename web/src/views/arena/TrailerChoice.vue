<script setup lang="ts">
// Which trailer it is today, and what to mind because of it. A new one is written
// down here, once.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import FieldRow from '../../parts/FieldRow.vue'
import TrailerForm from '../../cases/TrailerForm.vue'

const { trailers } = defineProps<{ trailers: Schemas['Trailer'][] }>()
const chosen = defineModel<string>({ required: true })

const added = ref<Schemas['Trailer'][]>([])
const all = computed(() => [...trailers, ...added.value])
const one = computed(() => all.value.find((t) => t.id === chosen.value))
const writing = ref(false)

function done(t: Schemas['Trailer']) {
  added.value = [...added.value, t]
  chosen.value = t.id
  writing.value = false
}
</script>

<template>
  <FieldRow label="Which trailer?">
    <ChipRow
      big
      label="Which trailer"
      :choices="all.map((t) => ({ value: t.id, text: t.name }))"
      :chosen="[chosen]"
      @toggle="chosen = chosen === $event ? '' : $event"
    >
      <ElButton v-if="!writing" class="new" @click="writing = true">{{ all.length ? 'another one' : 'write it down' }}</ElButton>
    </ChipRow>
    <TrailerForm v-if="writing" @done="done" @leave="writing = false" />
    <template v-if="one">
      <p>{{ one.like.text }}</p>
      <p v-for="m in one.mind" :key="m.key" class="strong">{{ m.text }}</p>
    </template>
  </FieldRow>
</template>

<style scoped>
.new {
  min-height: var(--touch);
}
</style>
