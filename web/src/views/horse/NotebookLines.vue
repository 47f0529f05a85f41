<script setup lang="ts">
// What the notebook of earlier years says of the horse: to be read, judged by nothing.
import { ref } from 'vue'
import { api, told } from '../../api/client'
import { useLoad } from '../../api/use'
import { count, shortDate } from '../../words'

const { horse } = defineProps<{ horse: string }>()
const { data } = useLoad(() => told(api.GET('/api/horses/{id}/notebook', { params: { path: { id: horse } } })))
const all = ref(false)
const first = 10
</script>

<template>
  <section v-if="data?.length" class="sheet stack">
    <h2>From the notebook</h2>
    <p class="quiet small">Taken in from a table. It counts for nothing that is judged.</p>
    <ul>
      <li v-for="(l, i) in all ? data : data.slice(0, first)" :key="i" class="line">
        {{ shortDate(l.on) }}:
        {{ [l.what, l.minutes === undefined ? '' : count(l.minutes, 'minute', 'minutes'), l.note].filter(Boolean).join(' · ') }}
        <span class="quiet small">{{ l.notebook }}</span>
      </li>
    </ul>
    <ElButton v-if="data.length > first" link @click="all = !all">{{ all ? 'Show fewer' : `Show all ${data.length}` }}</ElButton>
  </section>
</template>

<style scoped>
.line {
  border-top: var(--line);
  padding: var(--gap-1) 0;
}
</style>
