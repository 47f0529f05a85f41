<script setup lang="ts">
// The lower half of the arena, as the school of the ask has it.
import { computed } from 'vue'
import type { Schemas } from '../../../api/types'
import type { AnswerWord } from '../../../parts/answers'
import AnswerKeys from '../../../parts/AnswerKeys.vue'
import type { Pad } from '../usePads'
import LiveLines from '../LiveLines.vue'
import BurstPad, { type Bursted } from './BurstPad.vue'
import HurryKey from './HurryKey.vue'
import LetDownKey from './LetDownKey.vue'
import DosePad, { type Dosed } from './DosePad.vue'
import ReviewPad from './ReviewPad.vue'
import OfferPad from './OfferPad.vue'
import SpellPad, { type Running } from './SpellPad.vue'
import TryPad from './TryPad.vue'

const { pad, hold, card, target, places, running, session, now, live, tried, place } = defineProps<{
  pad: Pad
  hold: { on: boolean; seconds: number; draft: { tries?: unknown[] } }
  card?: Schemas['ArenaCard']
  target: number
  places: Schemas['ArenaPlaceToBe'][]
  running?: Running
  session: string
  now: number
  live: Schemas['ArenaLive']
  /** The trials of a review today. */
  tried: Schemas['TrackTrial'][]
  /** Where on the body the stimulus is. */
  place: string
}>()
const emit = defineEmits<{
  answer: [word: AnswerWord]
  tried: []
  dose: [dose: Dosed]
  offer: [word: Schemas['TrackOffer']['answer']]
  burst: [burst: Bursted]
  begin: [place: string, rest: boolean]
  running: [running: Running]
  end: [by: Schemas['TrackSpell']['ended_by']]
  place: []
  down: [seconds: number]
  trial: [trial: Schemas['TrackTrial']]
  stopped: [i: Schemas['TrackInterruption']]
  choose: [pad: Pad]
}>()

/** The other pads that an ask of this card can be logged by. */
const others = computed<{ pad: Pad; say: string }[]>(() => {
  if (!card) return []
  const one: { pad: Pad; say: string } = { pad: 'answers', say: 'one ask at a time' }
  if (pad === 'burst' || (pad === 'offer' && card.values.length > 0)) return [one]
  if (pad === 'answers' && card.pad === 'offer') return [{ pad: 'offer', say: 'offers' }]
  return card.ridden ? [{ pad: 'burst', say: 'asks in a burst' }] : []
})
</script>

<template>
  <div class="school">
    <LiveLines :lines="live.lines" />
    <SpellPad
      v-if="pad === 'places'"
      :places="places"
      :running="running"
      :now="now"
      @begin="(place, rest) => emit('begin', place, rest)"
      @change="emit('running', $event)"
      @end="emit('end', $event)"
    />
    <DosePad
      v-else-if="pad === 'dose'"
      :store="`dose-${session}`"
      :planned="target"
      :unit="card?.unit ?? ''"
      :now="now"
      :place="place"
      @dose="emit('dose', $event)"
      @place="emit('place')"
    />
    <ReviewPad
      v-else-if="pad === 'review'"
      :store="`review-${session}`"
      :now="now"
      :tried="tried"
      @trial="emit('trial', $event)"
    />
    <OfferPad v-else-if="pad === 'offer'" @offer="emit('offer', $event)" />
    <BurstPad v-else-if="pad === 'burst'" :store="`burst-${session}`" @burst="emit('burst', $event)" />
    <template v-else>
      <div v-if="live.released || pad === 'tries'" class="waits">
        <LetDownKey v-if="live.released" :since="live.released" :now="now" @down="emit('down', $event)" />
        <TryPad
          v-if="pad === 'tries'"
          :on="hold.on"
          :seconds="hold.seconds"
          :tries="hold.draft.tries?.length ?? 0"
          @tried="emit('tried')"
        />
      </div>
      <div class="answers"><AnswerKeys :disabled="!card" @answer="emit('answer', $event)" /></div>
    </template>
    <HurryKey v-if="card?.ridden" :session="session" :now="now" @stopped="emit('stopped', $event)" />
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
/* Nothing may move under a hand that holds the rope: both keys keep their row. */
.waits {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: var(--gap-2);
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
