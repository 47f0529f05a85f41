<script setup lang="ts">
// Section B: the horse to touch, on both sides, and the items beside it.
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/types'
import BodyMark from '../../parts/BodyMark.vue'
import { itemPlaces } from '../../parts/horsePlaces'
import HorseTouch from '../../parts/HorseTouch.vue'
import { sideWord } from '../../words'
import BodyItem from './BodyItem.vue'
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
const says = (side: 'near' | 'off') => (key: string) =>
  `${items.value.find((i) => i.item === key)?.name.text ?? key}, ${sideWord(side)} side: ${state(key)}`
</script>

<template>
  <div class="stack">
    <div class="both">
      <HorseTouch
        v-for="side in ['near', 'off'] as const"
        :key="side"
        v-slot="{ place }"
        :side="side"
        :spots="itemPlaces"
        :chosen="chosen"
        :says="says(side)"
        @touch="choose($event as Item['item'])"
      >
        <BodyMark :state="state(place)" />
      </HorseTouch>
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
