<script setup lang="ts">
import { useRoute, useRouter } from 'vue-router'
import SignInForm from './SignInForm.vue'

const route = useRoute()
const router = useRouter()

/** Back to where one wanted to go, within this product only. */
function on() {
  const to = typeof route.query.to === 'string' ? route.query.to : ''
  void router.push(to.startsWith('/') && !to.startsWith('//') ? to : '/horses')
}
</script>

<template>
  <div class="door">
    <svg viewBox="0 0 400 120" class="arch" aria-hidden="true">
      <path d="M0 112Q200 -60 400 112" />
      <path d="M70 63v57M135 36v84M200 26v94M265 36v84M330 63v57" class="piers" />
    </svg>
    <h1>Ivory Bridge</h1>
    <p class="quiet">From the problem to the goal, plank by plank, with every ask on record.</p>
    <div class="sheet"><SignInForm @done="on" /></div>
  </div>
</template>

<style scoped>
.door {
  max-width: 420px;
  margin: 8vh auto 0;
  padding: var(--gap-3);
  display: grid;
  gap: var(--gap-3);
}
.arch {
  width: 100%;
  fill: none;
  stroke: var(--ink-1);
  stroke-width: 6;
}
.piers {
  stroke: var(--leather);
}
</style>
