<script setup lang="ts">
// How the horse was, drawn as its head: height, ear, eye and nose say it before the
// word.
import { computed } from 'vue'

const { arousal } = defineProps<{ arousal: number }>()

const muzzle = 'M-2 -3C-9 0 -18 12 -25 23C-28 28 -28 33 -24 34.5C-20 36 -17 33 -14 30C-10 28 -5 26 -1 22C4 20 7 15 7 9'
const open =
  'M-2 -3C-9 0 -18 12 -25 23C-28 28 -28 33 -24 34.5C-21 31 -17 28 -13 25L-16 38C-12 40 -9 36 -8 31C-6 27 -3 26 0 23C4 20 7 15 7 9'
const heads = [
  {
    neck: 'M28.3 34.4C44.3 30.4 60 40 70 50',
    throat: 'M34.9 46.3C37.9 60.3 34 62 42 74',
    at: 'translate(26 38) rotate(-12)',
    ear: 'M-1 -2L2 -13L7 -3',
    eye: 0,
  },
  {
    neck: 'M33.1 17.1C49.1 20.1 60 32 70 50',
    throat: 'M36.6 30.2C39.6 44.2 42 54 42 74',
    at: 'translate(30 20) rotate(2)',
    ear: 'M-5 0L-11 -12L2 -5',
    eye: 2,
  },
  {
    neck: 'M36.7 6.9C52.7 9.9 60 32 70 50',
    throat: 'M37 20.5C39.9 34.5 42 54 42 74',
    at: 'translate(33 9) rotate(16)',
    ear: 'M-4 -2L-3 -16L4 -4',
    eye: 2.8,
  },
  {
    neck: 'M47.2 8.6C63.2 11.6 60 32 70 50',
    throat: 'M41.9 21.2C44.9 35.1 42 54 42 74',
    at: 'translate(43 9) rotate(40)',
    ear: 'M-1 -2L7 -14L7 0',
    eye: 4,
  },
  {
    neck: 'M47.1 5.8C63 8.7 60 32 70 50',
    throat: 'M44.5 19.1C47.4 33.1 42 54 42 74',
    at: 'translate(43 7) rotate(28)',
    ear: 'M0 0L15 -2L6 6',
    eye: 4,
  },
]
const head = computed(() => heads[arousal] ?? heads[0])
</script>

<template>
  <svg v-if="head" class="head" viewBox="-2 -8 80 86" aria-hidden="true">
    <path :d="head.neck" />
    <path :d="head.throat" />
    <g :transform="head.at">
      <path class="skin" :d="arousal === 4 ? open : muzzle" />
      <path class="skin" :d="head.ear" />
      <path v-if="head.eye === 0" d="M-11 9q3 3.5 6 .5" />
      <circle v-else-if="head.eye < 4" class="full" cx="-7" cy="9" :r="head.eye" />
      <template v-else>
        <circle class="skin" cx="-7" cy="9" r="4" />
        <circle class="full" cx="-7" cy="9" r="1.7" />
      </template>
      <circle class="full" cx="-22" cy="29" r="1.4" />
    </g>
    <path v-if="arousal === 4" d="M4 50l-5 3M7 58l-4 5" />
  </svg>
</template>

<style scoped>
.head {
  display: block;
  width: 100%;
  max-width: 76px;
  height: auto;
  fill: none;
  stroke: currentcolor;
  stroke-width: 2.6;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.full {
  fill: currentcolor;
  stroke: none;
}
</style>
