<script setup lang="ts">
// The homework card: what to do, when it is good, what if the horse says no, when to
// stop.
import type { HorsePage } from './client'

type Card = NonNullable<HorsePage['card']>

const { card, steps } = defineProps<{ card: Card; steps: Card['steps'] }>()
</script>

<template>
  <p class="lead">{{ card.time.text }}</p>
  <section v-for="s in steps" :key="s.step" class="step">
    <h3>{{ s.plain }}</h3>
    <p>{{ s.ask }}.</p>
    <p v-if="s.let_go">{{ s.let_go.text }}</p>
    <p>{{ s.good.text }}</p>
    <p>
      <b>{{ s.refuses.text }}</b>
    </p>
  </section>
  <template v-if="card.remember.length">
    <h3>Remember</h3>
    <ul>
      <li v-for="r in card.remember" :key="r">{{ r }}</li>
    </ul>
  </template>
  <h3>Stop when</h3>
  <ul>
    <li v-for="s in card.stop" :key="s.key">{{ s.text }}</li>
  </ul>
  <p>
    <b>{{ card.call.text }}</b>
  </p>
  <p class="small">{{ card.safety.text }}</p>
</template>

<style scoped>
.lead {
  font-weight: 700;
  font-size: 1.2rem;
}
.step {
  border-top: var(--line);
  margin: var(--gap-2) 0 0;
  padding: var(--gap-2) 0 0;
}
h3 {
  margin-top: var(--gap-2);
}
h3::first-letter {
  text-transform: uppercase;
}
ul {
  margin: 4px 0;
  padding-left: 22px;
}
</style>
