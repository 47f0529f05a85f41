<script setup lang="ts">
// What the server could not take, each with its word: it stays on this device until
// somebody lets it go.
import { ref, watch } from 'vue'
import { clockTime } from '../words'
import { outbox, saveToFile } from './kept'
import type { Kept } from './outbox'

const list = ref<Kept[]>([])
watch(
  () => outbox.value?.state.refused,
  async () => (list.value = (await outbox.value?.setAside()) ?? []),
  { immediate: true },
)

const letGo = (k: Kept) => outbox.value?.forgive([k.id])
const what = (k: Kept) => ('kind' in k.entry ? k.entry.kind : 'path' in k.entry ? 'mark' : 'session begun')
</script>

<template>
  <div v-if="list.length" class="aside">
    <ul>
      <li v-for="k in list" :key="k.id">
        {{ what(k) }}, {{ clockTime(k.at) }}. {{ k.refused }}
        <button type="button" class="plain" @click="letGo(k)">Let it go</button>
      </li>
    </ul>
    <button type="button" class="plain" @click="saveToFile">Save it to a file</button>
  </div>
</template>

<style scoped>
.aside {
  display: grid;
  gap: var(--gap-1);
  max-height: 40vh;
  overflow-y: auto;
  overflow-wrap: anywhere;
}
.plain {
  border: 0;
  background: none;
  padding: var(--gap-1) 0;
  color: inherit;
  text-decoration: underline;
  cursor: pointer;
  text-align: left;
}
</style>
