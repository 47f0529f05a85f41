<script setup lang="ts">
// Something unasked is stopped: what it was, towards what, how firm, how long.
// The time runs from when the sheet was opened.
import { computed, ref } from 'vue'
import type { Schemas } from '../../../api/types'
import ChipRow from '../../../parts/ChipRow.vue'
import ArenaSheet from '../ArenaSheet.vue'
import LiveLines from '../LiveLines.vue'

type Interruption = Schemas['TrackInterruption']

const { ways, began, now } = defineProps<{
  ways: Schemas['WayOut'][]
  began: number
  now: number
  live: Schemas['ArenaLive']
}>()
const emit = defineEmits<{ stopped: [i: Interruption]; close: [] }>()

const behaviour = ref<Interruption['behaviour']>()
const heading = ref('')
const level = ref<number>()
const seconds = computed(() => Math.max(0, Math.round((now - began) / 1000)))
const headings = ['home', 'away', 'across'].map((value) => ({ value, text: value }))
const levels = Array.from({ length: 10 }, (_, i) => ({ value: i + 1, text: String(i + 1) }))

function stopped() {
  if (!behaviour.value) return
  emit('stopped', {
    behaviour: behaviour.value,
    heading: heading.value || undefined,
    level: level.value,
    seconds: Math.round((Date.now() - began) / 1000),
  })
}
</script>

<template>
  <ArenaSheet title="It did something" @close="emit('close')">
    <LiveLines :lines="live.lines" />
    <ChipRow
      big
      label="What it did"
      :choices="ways.map((w) => ({ value: w.word, text: w.word }))"
      :chosen="[behaviour ?? '']"
      @toggle="behaviour = $event as Interruption['behaviour']"
    />
    <section>
      <h3>Heading</h3>
      <ChipRow
        big
        label="Heading"
        :choices="headings"
        :chosen="[heading]"
        @toggle="heading = heading === $event ? '' : String($event)"
      />
    </section>
    <section>
      <h3>Level that stopped it</h3>
      <ChipRow big label="Level" :choices="levels" :chosen="[level ?? -1]" @toggle="level = Number($event)" />
    </section>
    <div class="pad">
      <button type="button" class="main" :disabled="!behaviour" @click="stopped">
        It has stopped: let go<small>{{ behaviour ? `after ${seconds} s` : 'say first what it did' }}</small>
      </button>
    </div>
  </ArenaSheet>
</template>

<style scoped src="./pad.css"></style>
<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
</style>
