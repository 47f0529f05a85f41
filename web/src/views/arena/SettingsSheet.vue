<script setup lang="ts">
// Who holds the rope, which hand, hold or tap; and the keys.
import type { Schemas } from '../../api/client'
import ChipRow from '../../parts/ChipRow.vue'
import ArenaSheet from './ArenaSheet.vue'
import KeyList from './KeyList.vue'

const left = defineModel<boolean>('left', { required: true })
const tapping = defineModel<boolean>('tapping', { required: true })
const handler = defineModel<string>('handler', { required: true })
const { handlers } = defineProps<{ handlers: Schemas['HandlerChoice'][] }>()
const emit = defineEmits<{ close: [] }>()

const hands = [
  { value: 'right', text: 'right hand' },
  { value: 'left', text: 'left hand' },
]
const ways = [
  { value: 'hold', text: 'hold the rope' },
  { value: 'tap', text: 'tap levels' },
]
</script>

<template>
  <ArenaSheet title="Settings and keys" @close="emit('close')">
    <section v-if="handlers.length > 1">
      <h3>Who holds the rope</h3>
      <ChipRow
        big
        label="Who holds the rope"
        :choices="handlers.map((h) => ({ value: h.id, text: h.name }))"
        :chosen="[handler]"
        @toggle="handler = String($event)"
      />
    </section>
    <section>
      <h3>Pressure</h3>
      <ChipRow big label="Pressure" :choices="ways" :chosen="[tapping ? 'tap' : 'hold']" @toggle="tapping = $event === 'tap'" />
    </section>
    <section>
      <h3>Which hand is free</h3>
      <ChipRow
        big
        label="Which hand is free"
        :choices="hands"
        :chosen="[left ? 'left' : 'right']"
        @toggle="left = $event === 'left'"
      />
    </section>
    <section>
      <h3>Keys</h3>
      <KeyList />
    </section>
  </ArenaSheet>
</template>

<style scoped>
h3 {
  font-size: var(--step-2);
  margin-bottom: var(--gap-2);
}
</style>
