<script setup lang="ts">
// Wait it out: the rope stays as it is; each try is a small release. The answer
// is tapped once it is soft, or the time has come.
import { clock } from '../../../words'

const { on, seconds, tries } = defineProps<{ on: boolean; seconds: number; tries: number }>()
const emit = defineEmits<{ tried: [] }>()
</script>

<template>
  <div class="pad">
    <button type="button" class="main" :disabled="!on" @click="emit('tried')">
      a try: small release<small>{{
        on ? `${tries} so far, held ${clock(seconds)}` : 'hold the rope; it stays until it softens'
      }}</small>
    </button>
  </div>
</template>

<style scoped src="./pad.css"></style>
