<script setup lang="ts">
// Touched all over: zones as areas on both sides, by hand, by tool, from over.
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/types'
import AnswerRow from '../../parts/AnswerRow.vue'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import HorseOutline from '../../parts/HorseOutline.vue'
import LevelKeys from '../../parts/LevelKeys.vue'
import { sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'

const { walk } = defineProps<{ walk: Assessing }>()

type Touch = Schemas['AssessTouch']
const bands = [
  { zone: 'zone 1', from: -20, to: 26 },
  { zone: 'zone 2', from: 26, to: 176 },
  { zone: 'zone 3', from: 176, to: 334 },
  { zone: 'zone 4', from: 334, to: 412 },
  { zone: 'zone 5', from: 412, to: 470 },
]
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
const x = (side: string, b: (typeof bands)[number]) => (side === 'near' ? b.from : 480 - b.to)
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
            v-for="b in bands"
            :key="b.zone"
            role="button"
            tabindex="0"
            class="zone"
            :class="[touch(key(b.zone, side))?.grade, { chosen: chosen === `${b.zone} ${side}` }]"
            :aria-label="`${b.zone} ${sideWord(side)}: ${shown(b.zone, side)}`"
            @click="chosen = `${b.zone} ${side}`"
            @keydown.enter.prevent="chosen = `${b.zone} ${side}`"
            @keydown.space.prevent="chosen = `${b.zone} ${side}`"
          >
            <rect :x="x(side, b)" y="6" :width="b.to - b.from" height="328" />
            <text :x="x(side, b) + (b.to - b.from) / 2" y="26">{{ b.zone.slice(5) }}</text>
            <text v-if="touch(key(b.zone, side))" :x="x(side, b) + (b.to - b.from) / 2" y="330" class="said">
              {{ letter[touch(key(b.zone, side))?.grade ?? ''] ?? '?' }} {{ touch(key(b.zone, side))?.level ?? '' }}
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
rect {
  fill: transparent;
  stroke: var(--ink-2);
  stroke-width: 1.2;
  stroke-dasharray: 4 4;
}
.accepted rect,
.offered rect {
  fill: color-mix(in srgb, var(--pasture) 18%, transparent);
  stroke-dasharray: none;
}
.refused rect,
.try rect,
.tolerated rect {
  fill: color-mix(in srgb, var(--ochre) 22%, transparent);
  stroke-dasharray: none;
}
.chosen rect,
.zone:focus-visible rect {
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
