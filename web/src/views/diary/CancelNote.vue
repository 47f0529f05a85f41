<script setup lang="ts">
// Who is to be told that a visit does not take place.
import type { Schemas } from '../../api/types'
import TellList from './TellList.vue'

const { gone } = defineProps<{ gone: Schemas['Cancelled'] }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <section class="sheet stack" role="status">
    <h2>Cancelled. Now tell</h2>
    <TellList :visit="gone.visit.id" :tell="gone.tell" />
    <div class="row"><ElButton @click="emit('close')">Done</ElButton></div>
  </section>
</template>
