<script setup lang="ts">
// The owner's turn, first on a person who plays the horse: the same seven things as
// under homework and clearance, for the ask at work.
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import RehearsalForm from '../../cases/RehearsalForm.vue'
import PageState from '../../parts/PageState.vue'
import ArenaSheet from './ArenaSheet.vue'

const { kase, person, name, step, ask } = defineProps<{ kase: string; person: string; name: string; step: string; ask: string }>()
const emit = defineEmits<{ close: [] }>()
const { data, trouble, load } = useLoad(() => told(api.GET('/api/cases/{id}/clearance', { params: { path: { id: kase } } })))
</script>

<template>
  <ArenaSheet :title="`${name} rehearses ${ask}`" @close="emit('close')">
    <PageState :trouble="trouble" :ready="data !== undefined" @again="load">
      <p v-for="h in data?.held" :key="h.key" class="strong">{{ h.text }}</p>
      <RehearsalForm
        v-if="data"
        :case-id="kase"
        :person="person"
        :step="step"
        :words="data"
        @kept="emit('close')"
        @leave="emit('close')"
      />
    </PageState>
  </ArenaSheet>
</template>
