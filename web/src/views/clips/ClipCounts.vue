<script setup lang="ts">
// What was tapped on a clip, logged in a session of its day where a walk was asked for.
import { onUnmounted } from 'vue'
import type { Schemas } from '../../api/types'
import { outbox } from '../../offline/kept'
import { mostLive } from '../../parts/hooves'

const { clip, landings, speed } = defineProps<{
  clip: Schemas['ClipWhole']
  landings: Schemas['GaitLanding'][]
  speed: number
}>()
const emit = defineEmits<{ logged: [] }>()
const hearing: (() => void)[] = []
onUnmounted(() => hearing.forEach((stop) => stop()))

async function log(w: Schemas['Walked']) {
  const box = outbox.value
  if (!box) return
  const topic = `session/${w.session}` as const
  hearing.push(box.onTold(topic, () => emit('logged')))
  await box.add(
    topic,
    { kind: 'mark', mark: { footfall: { step: w.step, speed, landings: landings.slice(0, mostLive) } }, note: 'timed on a clip' },
    w.at,
  )
}
</script>

<template>
  <ul v-if="clip.walked.length" class="counts">
    <li v-for="w in clip.walked" :key="w.session + w.step" class="row">
      <span v-if="w.timed">The footfall of {{ w.name }} stands in the session of this day.</span>
      <template v-else>
        <span>{{ w.name }} was asked that day, and waits for a walk to be timed.</span>
        <ElButton size="small" @click="log(w)">Log these taps there</ElButton>
      </template>
    </li>
  </ul>
</template>

<style scoped>
.counts {
  margin: 0;
  padding: 0;
  list-style: none;
}
.counts span::first-letter {
  text-transform: uppercase;
}
</style>
