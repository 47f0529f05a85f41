<script setup lang="ts">
// What no session saw, and where it is known from.
import type { Schemas } from '../api/types'

const { sources } = defineProps<{ sources: Schemas['ProgressSource'][] }>()
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
</script>

<template>
  <ul v-if="sources.length" class="plain-list small">
    <li v-for="s in sources" :key="s.says.text">{{ capital(s.says.text) }}: {{ s.steps.join(', ') }}.</li>
  </ul>
</template>
