<script setup lang="ts">
// Who is to be told of a visit, each with the message ready. The appointment goes with it
// where the phone takes files, and lies beside it everywhere.
import { onMounted, ref, shallowRef } from 'vue'
import type { Schemas } from '../../api/types'
import { passedOn, shares } from '../../parts/copy'
import { dial } from '../../parts/dial'

const { visit, tell } = defineProps<{ visit: string; tell: Schemas['Tell'][] }>()
const said = ref('')
const ics = `/api/visits/${visit}/visit.ics`
const file = shallowRef<File>()

// It is fetched before it is wanted: a phone passes on only what is ready as it is tapped.
onMounted(async () => {
  if (!shares) return
  const answer = await fetch(ics).catch(() => undefined)
  if (answer?.ok) file.value = new File([await answer.blob()], 'visit.ics', { type: 'text/calendar' })
})

async function send(text: string) {
  said.value = await passedOn(text, file.value)
}
</script>

<template>
  <ul class="stack">
    <li v-for="t in tell" :key="t.name">
      <p>
        <b>{{ t.name }}</b>{{ ' ' }}
        <a v-if="t.phone" :href="dial(t.phone)">{{ t.phone }}</a>
      </p>
      <p>{{ t.message }}</p>
      <ElButton @click="send(t.message)">{{ shares ? 'Send the message' : 'Copy the message' }}</ElButton>
    </li>
  </ul>
  <p v-if="tell.length === 0">Nobody owns this horse here. Nobody else is to be told.</p>
  <p v-if="said" role="status">{{ said }}</p>
  <p><a :href="ics" download>The appointment, for a calendar</a></p>
</template>
