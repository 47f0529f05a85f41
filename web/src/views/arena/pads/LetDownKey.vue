<script setup lang="ts">
// The clock from the release to the let-down, big: the horse is left alone to think
// until its whole body lets down.
import { clock } from '../../../words'

const { since, now } = defineProps<{ since: number; now: number }>()
const emit = defineEmits<{ down: [seconds: number] }>()
</script>

<template>
  <div class="pad">
    <button type="button" @click="emit('down', Math.round((Date.now() - since) / 1000))">
      <span class="count">{{ clock(Math.max(0, (now - since) / 1000)) }}</span>
      <small>since the release: it lets down</small>
    </button>
  </div>
</template>

<style scoped src="./pad.css"></style>
