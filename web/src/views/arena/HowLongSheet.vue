<script setup lang="ts">
// A hold was answered without its clock: how long did it stand? Without that it
// is kept, and does not count towards the pass mark.
import type { Schemas } from '../../api/types'
import ChipRow from '../../parts/ChipRow.vue'
import { measured } from '../../words'
import ArenaSheet from './ArenaSheet.vue'

const { card } = defineProps<{ card: Schemas['ArenaCard'] }>()
const emit = defineEmits<{ long: [seconds: number | undefined]; close: [] }>()
</script>

<template>
  <ArenaSheet title="How long did it stand?" @close="emit('close')">
    <ChipRow
      big
      label="How long"
      :choices="card.values.map((v) => ({ value: v, text: measured(v, card.unit) }))"
      :chosen="[]"
      @toggle="emit('long', $event)"
    />
    <ChipRow
      big
      label="Not timed"
      :choices="[{ value: 'no', text: 'not timed' }]"
      :chosen="[]"
      @toggle="emit('long', undefined)"
    />
  </ArenaSheet>
</template>
