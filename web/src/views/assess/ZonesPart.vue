<script setup lang="ts">
// Touched all over: zones as areas on both sides, by hand, by tool, from over.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import AnswerRow from '../../parts/AnswerRow.vue'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import HorseOutline from '../../parts/HorseOutline.vue'
import { area, onSide, zones } from '../../parts/horsePlaces'
import LevelKeys from '../../parts/LevelKeys.vue'
import { sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'

const { walk } = defineProps<{ walk: Assessing }>()

type Touch = Schemas['AssessTouch']
const withs = ['hand', 'tool', 'over'] as const
const using = ref<(typeof withs)[number]>('hand')
const chosen = ref('')

const key = (zone: string, side: string) => `${zone} ${side} ${using.value}`
const touch = (k: string) => walk.typed(`zones/${k}`) as Touch | undefined
const shown = (zone: string, side: string) => {
  const t = touch(key(zone, side))
  return t ? `${t.grade || '?'}, level ${t.level ?? '?'}` : 'not touched'
}
const open = computed(() => chosen.value && `${chosen.value} ${using.value}`)
const note = (name: keyof Touch, value: unknown) => walk.mark(`zones/${open.value}/${name}`, value)
const outs = computed(() => (open.value ? (touch(open.value)?.step_outs ?? 0) : 0))
/** The middle of a zone at the top of the picture, where its number stands. */
const middle = (side: 'near' | 'off', spots: (typeof zones)[string]) => {
  const xs = spots.filter(([, y]) => y < 10).map((spot) => onSide(side, spot)[0])
  return xs.reduce((sum, x) => sum + x, 0) / xs.length
}
const letter: Record<string, string> = { refused: '×', try: 't', tolerated: '~', accepted: '✓', offered: '★' }
</script>

<template>
  <div class="stack">
    <ChipRow label="Touched with" :choices="choices(withs)" :chosen="[using]" @toggle="using = $event" />
    <div class="both">
      <figure v-for="side in ['near', 'off'] as const" :key="side">
        <figcaption>{{ sideWord(side) }}</figcaption>
        <HorseOutline :side="side">
          <g
            v-for="(spots, zone) in zones"
            :key="zone"
            role="button"
            tabindex="0"
            class="zone"
            :class="[touch(key(zone, side))?.grade, { chosen: chosen === `${zone} ${side}` }]"
            :aria-label="`${zone} ${sideWord(side)}: ${shown(zone, side)}`"
            @click="chosen = `${zone} ${side}`"
            @keydown.enter.prevent="chosen = `${zone} ${side}`"
            @keydown.space.prevent="chosen = `${zone} ${side}`"
          >
            <polygon :points="area(side, spots)" />
            <text :x="middle(side, spots)" y="26">{{ zone.slice(5) }}</text>
            <text v-if="touch(key(zone, side))" :x="middle(side, spots)" y="410" class="said">
              {{ letter[touch(key(zone, side))?.grade ?? ''] ?? '?' }} {{ touch(key(zone, side))?.level ?? '' }}
            </text>
          </g>
        </HorseOutline>
      </figure>
    </div>
    <section v-if="open" class="now stack" :aria-label="open">
      <p class="strong">{{ chosen.replace(/(near|off)/, (s) => sideWord(s)) }}, {{ using }}</p>
      <LevelKeys label="Level in the zone" :level="touch(open)?.level" @tap="note('level', $event)" />
      <AnswerRow
        label="Answer in the zone"
        :answers="walk.data?.words.answers ?? []"
        :given="touch(open)?.grade"
        @tap="note('grade', $event)"
      />
      <div class="row">
        <button type="button" class="count" @click="note('step_outs', outs + 1)">stepped out: {{ outs }} · one more</button>
        <button v-if="outs" type="button" class="count" @click="note('step_outs', outs > 1 ? outs - 1 : null)">one less</button>
      </div>
    </section>
    <p v-else class="quiet">Touch a zone on either side. 1 is in front of the nose, 5 behind.</p>
  </div>
</template>

<style scoped>
.both {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
  gap: var(--gap-3);
}
figure {
  margin: 0;
}
figcaption {
  font: 700 var(--step-2) var(--font-head);
}
.zone {
  cursor: pointer;
}
.zone:focus-visible {
  outline: none;
}
polygon {
  fill: transparent;
  stroke: var(--ink-2);
  stroke-width: 1.2;
  stroke-dasharray: 4 4;
}
.accepted polygon,
.offered polygon {
  fill: color-mix(in srgb, var(--pasture) 18%, transparent);
  stroke-dasharray: none;
}
.refused polygon,
.try polygon,
.tolerated polygon {
  fill: color-mix(in srgb, var(--ochre) 22%, transparent);
  stroke-dasharray: none;
}
.chosen polygon,
.zone:focus-visible polygon {
  stroke: var(--slate);
  stroke-width: 4;
  stroke-dasharray: none;
}
text {
  text-anchor: middle;
  font: 700 18px var(--font-head);
  fill: var(--ink-1);
}
.said {
  font: 600 17px var(--font-ui);
}
.now {
  border: 2px solid var(--ink-1);
  border-radius: var(--radius);
  padding: var(--gap-3);
  background: var(--ivory-1);
}
.count {
  min-height: var(--control);
  border: 2px solid var(--ink-2);
  border-radius: var(--radius);
  background: var(--ivory-0);
  padding: 0 var(--gap-3);
  cursor: pointer;
}
</style>
