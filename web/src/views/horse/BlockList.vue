<script setup lang="ts">
// Steps that the body blocks, by item, with what lifts them; a vet may release
// one.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import FieldRow from '../../parts/FieldRow.vue'
import type { Put } from '../../cases/useAssessment'

const { blocks, mark = undefined } = defineProps<{ blocks: Schemas['AssessBlock'][]; mark?: Put }>()

const items = computed(() => [...new Set(blocks.map((b) => b.item))].map((item) => blocks.filter((b) => b.item === item)))
const vet = ref('')
const releasing = ref('')

function release(b: Schemas['AssessBlock']) {
  if (!vet.value.trim()) return
  mark?.(`body/${b.item}/released/${b.step}`, { by: vet.value.trim(), on: me.value?.today ?? '' })
  releasing.value = ''
}
</script>

<template>
  <div v-for="list in items" :key="list[0]?.item" class="stack">
    <p>{{ list[0]?.why.text }} {{ list[0]?.lifts.text }}</p>
    <p class="steps">{{ list.map((b) => b.name).join(' · ') }}</p>
    <details v-if="mark" class="no-print">
      <summary>A vet released a step</summary>
      <div class="stack">
        <FieldRow v-slot="f" label="Which vet"><ElInput :id="f.id" v-model="vet" maxlength="120" /></FieldRow>
        <div class="row">
          <ElButton v-for="b in list" :key="b.step" :disabled="!vet.trim()" @click="release(b)">Release {{ b.name }}</ElButton>
        </div>
      </div>
    </details>
  </div>
</template>

<style scoped>
.steps {
  font-weight: 600;
}
summary {
  cursor: pointer;
  min-height: var(--control);
  align-content: center;
}
</style>
