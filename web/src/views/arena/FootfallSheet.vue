<script setup lang="ts">
// The footfall of what is asked now, timed while it goes.
import type { Schemas } from '../../api/types'
import FootfallLive from '../../cases/FootfallLive.vue'
import ArenaSheet from './ArenaSheet.vue'

const { name } = defineProps<{ name: string }>()
const emit = defineEmits<{ keep: [landings: Schemas['GaitLanding'][]]; close: [] }>()
</script>

<template>
  <ArenaSheet :title="`The footfall: ${name}`" @close="emit('close')">
    <FootfallLive @keep="emit('keep', $event)" />
  </ArenaSheet>
</template>
