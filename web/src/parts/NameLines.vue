<script setup lang="ts">
// A name over or under a drawn thing, in one line or two, never cut or slanted.
import { computed } from 'vue'
import { lines } from './bridge'

const {
  name,
  x,
  y,
  letters,
  apart = 15,
  up = false,
} = defineProps<{
  name: string
  x: number
  /** Where the last line stands, if it grows up; else the first. */
  y: number
  letters: number
  apart?: number
  up?: boolean
}>()
const list = computed(() => lines(name, letters))
</script>

<template>
  <text :class="{ two: list.length > 1 }">
    <tspan v-for="(line, i) in list" :key="line" :x="x" :y="y + apart * (up ? i - list.length + 1 : i)">{{ line }}</tspan>
  </text>
</template>
