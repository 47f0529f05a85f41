<script setup lang="ts">
// The lower half of the arena, as the school of the ask has it.
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'
import type { AnswerWord } from '../../../parts/answers'
import AnswerKeys from '../../../parts/AnswerKeys.vue'
import type { Pad } from '../usePads'
import BurstPad, { type Bursted } from './BurstPad.vue'
import DosePad, { type Dosed } from './DosePad.vue'
import OfferPad from './OfferPad.vue'
import SpellPad, { type Running } from './SpellPad.vue'
import TryPad from './TryPad.vue'

const { pad, hold, card, target, places, running, session, now } = defineProps<{
  pad: Pad
  hold: { on: boolean; seconds: number; draft: { tries?: unknown[] } }
  card?: Schemas['ArenaCard']
  target: number
  places: Schemas['ArenaPlaceToBe'][]
  running?: Running
  session: string
  now: number
}>()
const emit = defineEmits<{
  answer: [word: AnswerWord]
  tried: []
  dose: [dose: Dosed]
  offer: [word: Schemas['TrackOffer']['answer']]
  burst: [burst: Bursted]
  begin: [place: string, rest: boolean]
  end: []
  choose: [pad: Pad]
}>()

/** The other pads that an ask of this card can be logged by. */
const others = computed<{ pad: Pad; say: string }[]>(() =>
  card?.ridden && pad !== 'burst'
    ? [{ pad: 'burst', say: 'asks in a burst' }]
    : pad === 'burst'
      ? [{ pad: 'answers', say: 'one ask at a time' }]
      : [],
)
</script>

<template>
  <div class="school">
    <SpellPad
      v-if="pad === 'places'"
      :places="places"
      :running="running"
      :now="now"
      @begin="(place, rest) => emit('begin', place, rest)"
      @end="emit('end')"
    />
    <DosePad
      v-else-if="pad === 'dose'"
      :store="`dose-${session}`"
      :planned="target"
      :unit="card?.unit ?? ''"
      :now="now"
      @dose="emit('dose', $event)"
    />
    <OfferPad v-else-if="pad === 'offer'" @offer="emit('offer', $event)" />
    <BurstPad v-else-if="pad === 'burst'" :store="`burst-${session}`" @burst="emit('burst', $event)" />
    <template v-else>
      <TryPad
        v-if="pad === 'tries'"
        :on="hold.on"
        :seconds="hold.seconds"
        :tries="hold.draft.tries?.length ?? 0"
        @tried="emit('tried')"
      />
      <div class="answers"><AnswerKeys :disabled="!card" @answer="emit('answer', $event)" /></div>
    </template>
    <div v-if="others.length" class="pad others">
      <button v-for="o in others" :key="o.pad" type="button" @click="emit('choose', o.pad)">{{ o.say }}</button>
    </div>
  </div>
</template>

<style scoped src="./pad.css"></style>
<style scoped>
.school {
  display: grid;
  gap: var(--gap-2);
  min-width: 0;
  align-content: stretch;
}
.answers {
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: var(--gap-2);
}
.others {
  grid-template-columns: max-content;
}
@media (max-width: 720px) {
  .school,
  .answers {
    gap: var(--gap-1);
  }
}
</style>
