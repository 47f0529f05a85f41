<script setup lang="ts">
// Where on the body it is: the horse to touch, on either side.
import { places } from '../../parts/horsePlaces'
import HorseTouch from '../../parts/HorseTouch.vue'
import { sideWord } from '../../words'
import ArenaSheet from './ArenaSheet.vue'

const { chosen } = defineProps<{ chosen: string }>()
const emit = defineEmits<{ place: [place: string, side: 'near' | 'off']; close: [] }>()
</script>

<template>
  <ArenaSheet title="Where on the body?" @close="emit('close')">
    <div class="both">
      <HorseTouch
        v-for="side in ['near', 'off'] as const"
        :key="side"
        :side="side"
        :spots="places"
        :chosen="chosen"
        :says="(place) => `${place}, ${sideWord(side)}`"
        @touch="emit('place', $event, side)"
      />
    </div>
  </ArenaSheet>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: var(--gap-3);
}
</style>
