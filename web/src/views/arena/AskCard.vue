<script setup lang="ts">
// What is asked now: the ask, what earns the release, what to mind, the side.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import { measured } from '../../words'

type Card = Schemas['ArenaCard']

const {
  card,
  variant,
  target,
  against,
  from,
  at = '',
} = defineProps<{
  card?: Card
  variant: string
  target?: number
  /** What stands against it. */
  against?: Schemas['ArenaAgainst']
  /** Name of the ask from which an answer moved the card on. */
  from?: string
  /** The trailer that is worked at. */
  at?: string
}>()
const emit = defineEmits<{ variant: [variant: string]; back: []; because: [why: string]; time: []; eye: [] }>()

/** Why it is asked early, if one likes; said once for each ask. */
const reasons = ['did it before', 'owner needs it', 'showing the owner', 'wants to try', 'it was seen']
const said = ref<{ step?: string; why?: string }>({})
const why = computed(() => (said.value.step === card?.key ? said.value.why : undefined))
function because(reason: string) {
  said.value = { step: card?.key, why: reason }
  emit('because', reason)
}

const sides = computed(() => card?.variants.length === 2 && card.variants.every((v) => v.side))
const title = computed(() => (target && card ? `${card.name}, ${measured(target, card.unit)}` : card?.name))
const letter = (name: string) => name.charAt(0).toUpperCase()
</script>

<template>
  <section v-if="card" class="ask">
    <p v-if="from" class="moved" role="status">
      Now: {{ card.name }}. <button type="button" class="back" @click="emit('back')">back to {{ from }}</button>
    </p>
    <h1>{{ title }}</h1>
    <p v-if="against" class="against">{{ against.why.text }}</p>
    <details v-if="against?.kind === 'early'" class="because">
      <summary>{{ why ?? 'why is it asked early?' }}</summary>
      <div class="variants">
        <button v-for="r in reasons" :key="r" type="button" :aria-pressed="why === r" @click="because(r)">{{ r }}</button>
      </div>
    </details>
    <p class="where">{{ card.ladder }}{{ card.foundation ? ' · foundation' : '' }} · {{ card.school }}</p>
    <div v-if="card.beats" class="variants">
      <button type="button" @click="emit('time')">time the footfall</button>
      <button type="button" @click="emit('eye')">four even beats, by eye</button>
    </div>
    <div class="text wide">
      <p class="lab">Ask</p>
      <p>{{ card.ask }}.</p>
    </div>
    <template v-if="card.pad !== 'review'">
      <p class="lab">Let go when</p>
      <p class="strong">{{ card.release || 'it answers' }}</p>
    </template>
    <div v-if="card.school !== 'build and release'" class="text wide">
      <p class="lab">How</p>
      <p>{{ card.works }}.</p>
    </div>
    <div v-if="card.watch" class="text wide">
      <p class="lab">Mind</p>
      <p>{{ card.watch }}.</p>
    </div>
    <p v-if="card.trailer" class="text">
      <RouterLink :to="`/cards/trailer${at ? `?at=${at}` : ''}`" class="card-link">The sequence card</RouterLink>
    </p>
    <div v-if="card.variants.length" class="variants" :class="{ sides }" role="group" aria-label="Side or place">
      <button
        v-for="v in card.variants"
        :key="v.variant"
        type="button"
        :aria-pressed="v.variant === variant"
        @click="emit('variant', v.variant)"
      >
        <b v-if="sides">{{ letter(v.name.text) }}</b>
        <span>{{ v.name.text }}</span>
      </button>
    </div>
  </section>
  <p v-else class="ask">Choose what to ask.</p>
</template>

<style scoped>
.card-link {
  display: inline-grid;
  align-content: center;
  min-height: var(--touch);
  color: inherit;
  font-weight: 600;
}
.ask {
  display: grid;
  gap: var(--gap-1);
  align-content: start;
  font-size: var(--step-2);
}
h1 {
  font-size: var(--step-3);
}
.where::first-letter {
  text-transform: uppercase;
}
.where,
.lab {
  font-size: var(--step-1);
}
.lab {
  margin-top: var(--gap-1);
}
.moved {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--gap-2);
  font-size: var(--step-1);
}
.back {
  padding: 0 var(--gap-3);
}
.because summary {
  min-height: var(--touch);
  align-content: center;
  cursor: pointer;
  font-size: var(--step-1);
}
.against {
  font-size: var(--step-1);
  font-weight: 600;
  border-left: 4px dashed var(--arena-ink);
  padding-left: var(--gap-2);
}
.variants {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
  gap: var(--gap-2);
  margin-top: var(--gap-2);
}
.variants.sides {
  grid-template-columns: 1fr 1fr;
  direction: ltr;
}
button {
  border: var(--stroke);
  border-radius: var(--radius);
  background: var(--ivory-0);
  min-height: var(--touch);
  font-size: var(--step-1);
  font-weight: 600;
  cursor: pointer;
  display: grid;
  place-content: center;
  justify-items: center;
  line-height: 1.1;
}
button b {
  font: 700 var(--step-3) / 1 var(--font-head);
}
button[aria-pressed='true'] {
  background: var(--arena-ink);
  color: var(--ivory-0);
}
@media (max-width: 720px) {
  .ask {
    font-size: var(--step-1);
  }
  h1 {
    font-size: var(--step-2);
  }
  .wide,
  .where {
    display: none;
  }
}
</style>
