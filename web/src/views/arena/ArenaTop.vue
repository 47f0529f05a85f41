<script setup lang="ts">
// The head of the arena: which horse, how long, and what is kept here.
import type { Schemas } from '../../api/types'
import { keptWords } from '../../offline/kept'
import { clock, daysAgo } from '../../words'
import type { ArenaSession } from './useArena'

const { session, numbers, since, holder } = defineProps<{
  session: ArenaSession
  numbers: Schemas['ArenaNumbers']
  /** Minutes since the numbers were told. */
  since: number
  holder: string
}>()
const emit = defineEmits<{ settings: [] }>()
const minutes = (told: number) => clock((told + since) * 60)
</script>

<template>
  <header class="top">
    <RouterLink :to="`/horses/${session.horse.id}`" class="horse">{{ session.horse.name }}</RouterLink>
    <span class="facts">
      {{
        [session.yard, session.weather, daysAgo(session.days_off), session.care, holder && `rope: ${holder}`]
          .filter(Boolean)
          .join(' · ')
      }}
    </span>
    <span class="clocks">
      <span
        >block <b>{{ minutes(numbers.block_minutes) }}</b> of {{ numbers.block_ends }}</span
      >
      <span
        >session <b>{{ minutes(numbers.session_minutes) }}</b></span
      >
      <span role="status">{{ keptWords }}</span>
    </span>
    <button type="button" class="set" @click="emit('settings')">settings</button>
  </header>
</template>

<style scoped src="./arena.css"></style>
