<script setup lang="ts">
// Ask and listen: what it did of its own will.
import type { Schemas } from '../../../api/types'

type Answer = Schemas['TrackOffer']['answer']
const emit = defineEmits<{ offer: [answer: Answer] }>()

const answers: { word: Answer; says: string }[] = [
  { word: 'came', says: 'a yes' },
  { word: 'stayed', says: 'a yes' },
  { word: 'hesitated', says: 'not yet' },
  { word: 'left', says: 'a no' },
]
</script>

<template>
  <div class="pad" role="group" aria-label="Offer">
    <button v-for="a in answers" :key="a.word" type="button" @click="emit('offer', a.word)">
      {{ a.word }}<small>{{ a.says }}</small>
    </button>
  </div>
</template>

<style scoped src="./pad.css"></style>
