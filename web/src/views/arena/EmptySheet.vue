<script setup lang="ts">
// Nothing stands on the track: the session can be thrown away.
import type { Trouble } from '../../api/client'
import WrongNote from '../../parts/WrongNote.vue'
import ArenaSheet from './ArenaSheet.vue'

const { trouble, busy } = defineProps<{ trouble?: Trouble; busy: boolean }>()
const emit = defineEmits<{ drop: []; end: []; close: [] }>()
</script>

<template>
  <ArenaSheet title="Nothing was logged" @close="emit('close')">
    <p>Throw this session away, or end it and keep it as it is.</p>
    <div class="row">
      <button type="button" class="button" :disabled="busy" @click="emit('drop')">Throw it away</button>
      <button type="button" class="button plain" @click="emit('end')">End it all the same</button>
    </div>
    <WrongNote :trouble="trouble" />
  </ArenaSheet>
</template>

<style scoped>
.button {
  min-height: var(--touch);
}
</style>
