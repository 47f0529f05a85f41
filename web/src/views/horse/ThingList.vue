<script setup lang="ts">
// The things that the horse has met: those of its sessions with day and how it went.
import type { Schemas } from '../../api/types'
import { count, shortDate } from '../../words'

const { things, told } = defineProps<{ things: Schemas['HistoryThing'][]; told: string[] }>()
</script>

<template>
  <section class="sheet stack">
    <h2>Things it has met: {{ things.length + told.length }}</h2>
    <p class="quiet small">From about the tenth to the twentieth a horse begins to trust the next one.</p>
    <ul class="dots">
      <li v-for="t in things" :key="t.name">
        <b>{{ t.name }}</b>: first {{ shortDate(t.first) }}, {{ count(t.asks, 'answer', 'answers') }}, last {{ t.how }}
        <span v-if="t.last !== t.first">on {{ shortDate(t.last) }}</span>
      </li>
      <li v-for="name in told" :key="name">
        <b>{{ name }}</b>: as told
      </li>
    </ul>
  </section>
</template>
