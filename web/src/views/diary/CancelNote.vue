<script setup lang="ts">
// Who is to be told that a visit does not take place, each with the message ready.
import { ref } from 'vue'
import type { Schemas } from '../../api/types'
import { passedOn } from '../../parts/copy'
import { dial } from '../../parts/dial'

const { gone } = defineProps<{ gone: Schemas['Cancelled'] }>()
const emit = defineEmits<{ close: [] }>()
const said = ref('')

async function send(text: string) {
  said.value = await passedOn(text)
}
</script>

<template>
  <section class="sheet stack" role="status">
    <h2>Cancelled. Now tell</h2>
    <ul class="stack">
      <li v-for="t in gone.tell" :key="t.name">
        <p>
          <b>{{ t.name }}</b>
          <a v-if="t.phone" :href="dial(t.phone)">{{ t.phone }}</a>
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
