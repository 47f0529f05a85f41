<script setup lang="ts">
// Who is to be told that a visit does not take place, each with the message ready.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import { copied } from '../../parts/copy'

const { gone } = defineProps<{ gone: Schemas['Cancelled'] }>()
const emit = defineEmits<{ close: [] }>()
const said = ref('')

async function send(text: string) {
  if (navigator.share) {
    try {
      await navigator.share({ text })
      return
    } catch {
      // put away, or not possible here: it is copied instead
    }
  }
  said.value = await copied(text)
}
</script>

<template>
  <section class="sheet stack" role="status">
    <h2>Cancelled. Now tell</h2>
    <ul class="stack">
      <li v-for="t in gone.tell" :key="t.name">
        <p>
          <b>{{ t.name }}</b>
          <a v-if="t.phone" :href="`tel:${t.phone.replaceAll(' ', '')}`">{{ t.phone }}</a>
        </p>
        <p>{{ t.message }}</p>
        <ElButton @click="send(t.message)">Send the message</ElButton>
      </li>
    </ul>
    <p v-if="gone.tell.length === 0">Nobody owns this horse here. Nobody else is to be told.</p>
    <p v-if="said">{{ said }}</p>
    <div class="row"><ElButton @click="emit('close')">Done</ElButton></div>
  </section>
</template>
