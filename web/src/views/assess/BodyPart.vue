<script setup lang="ts">
// Section B: the horse to touch, on both sides, and the items beside it.
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/types'
import BodyMark from '../../parts/BodyMark.vue'
import HorseOutline from '../../parts/HorseOutline.vue'
import { sideWord } from '../../words'
import BodyItem from './BodyItem.vue'
import { bodyPlaces } from './bodyPlaces'
import type { Assessing } from '../../cases/useAssessment'

const { walk, problem } = defineProps<{ walk: Assessing; problem: string }>()

type Item = Schemas['WalkItem']
const items = computed(() => walk.data?.items ?? [])
const chosen = ref<Item['item']>('')
const panel = useTemplateRef<HTMLElement>('panel')
const item = computed(() => items.value.find((i) => i.item === chosen.value))

async function choose(one: Item['item']) {
  chosen.value = one
  await nextTick()
  panel.value?.scrollIntoView({ block: 'nearest' })
}

/** As noted here, or as the server makes it of the checks by hand. */
const state = (i: string) => (walk.typed(`body/${i}/state`) as string | undefined) ?? walk.view?.states[i] ?? 'not looked at'
const rest = computed(() => items.value.filter((i) => state(i.item) === 'not looked at'))

function restClear() {
  for (const i of rest.value) walk.mark(`body/${i.item}/state`, 'clear')
}
const bears = (i: Item) => i.relevant.some((p) => p === problem)
const outline = (side: 'near' | 'off') =>
  items.value.flatMap((i) => {
    const place = bodyPlaces[i.item]
    return place ? [{ item: i, x: side === 'near' ? place[0] : 480 - place[0], y: place[1] }] : []
  })
</script>

<template>
  <div class="stack">
    <div class="both">
      <figure v-for="side in ['near', 'off'] as const" :key="side">
        <figcaption>{{ sideWord(side) }}</figcaption>
        <HorseOutline :side="side">
          <g
            v-for="m in outline(side)"
            :key="m.item.item"
            :transform="`translate(${m.x} ${m.y})`"
            class="spot"
            :class="{ chosen: chosen === m.item.item }"
            role="button"
            tabindex="0"
            :aria-label="`${m.item.name.text}, ${sideWord(side)} side: ${state(m.item.item)}`"
            @click="choose(m.item.item)"
            @keydown.enter.prevent="choose(m.item.item)"
            @keydown.space.prevent="choose(m.item.item)"
          >
            <circle r="27" class="target" />
            <BodyMark :state="state(m.item.item)" />
          </g>
        </HorseOutline>
      </figure>
    </div>
    <div class="items" role="group" aria-label="The body, item by item">
      <button
        v-for="i in items"
        :key="i.item"
        type="button"
        class="item"
        :class="{ bears: bears(i) }"
        :aria-pressed="chosen === i.item"
        @click="choose(i.item)"
      >
        <svg viewBox="-18 -18 36 36" class="mark" aria-hidden="true"><BodyMark :state="state(i.item)" /></svg>
        <span
          >{{ i.name.text }}<small>{{ state(i.item) }}{{ bears(i) ? ' · bears on this' : '' }}</small></span
        >
      </button>
      <button v-if="rest.length" type="button" class="item rest" @click="restClear">
        Looked at all the rest: clear ({{ rest.length }})
      </button>
    </div>
    <div v-if="item" ref="panel" class="panel">
      <BodyItem :key="item.item" :walk="walk" :item="item" :state="state(item.item)" />
    </div>
    <p v-else class="quiet">Touch the horse, or an item, and say what you found. What is not touched stays not looked at.</p>
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
  position: relative;
}
figcaption {
  font: 700 var(--step-2) var(--font-head);
}
.spot {
  cursor: pointer;
}
.target {
  fill: transparent;
}
.spot:focus-visible {
  outline: none;
}
.spot.chosen .target,
.spot:focus-visible .target {
  stroke: var(--slate);
  stroke-width: 3;
}
.items {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(180px, 100%), 1fr));
  gap: var(--gap-2);
}
.item {
  display: flex;
  align-items: center;
  gap: var(--gap-2);
  text-align: left;
  min-height: var(--control);
  padding: var(--gap-1) var(--gap-2);
  border: 2px solid var(--ivory-3);
  border-radius: var(--radius);
  background: var(--ivory-0);
  cursor: pointer;
}
.item.bears {
  border-color: var(--ink-2);
}
.item[aria-pressed='true'] {
  border-color: var(--ink-1);
  background: var(--ivory-2);
}
.item small {
  display: block;
  font-size: var(--step-0);
}
.rest {
  border-style: dashed;
  border-color: var(--ink-2);
  font-weight: 600;
}
.panel {
  scroll-margin-block: calc(var(--touch) + var(--gap-3)) var(--gap-3);
}
.mark {
  width: 30px;
  flex: none;
}
</style>
