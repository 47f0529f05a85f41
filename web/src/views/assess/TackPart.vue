<script setup lang="ts">
// Reasons for what is strong or tight, the hole of each strap per bridle, and
// trials: one change at a time.
import { v7 } from 'uuid'
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import { sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'
import WalkField from './WalkField.vue'

const { walk } = defineProps<{ walk: Assessing }>()

const words = computed(() => walk.data?.words)
const bridles = computed(() => Object.entries((walk.typed('tack/bridles') ?? {}) as Record<string, Schemas['AssessBridle']>))
const trials = computed(() => Object.entries((walk.typed('tack/trials') ?? {}) as Record<string, Schemas['AssessTrial']>))
const proposals = computed(() => walk.view?.result.tack ?? [])

const addBridle = () => walk.mark(`tack/bridles/${v7()}`, { name: `bridle ${bridles.value.length + 1}` })
const addTrial = () => walk.mark(`tack/trials/${v7()}`, { on: me.value?.today })
const verdict = (id: string, v: string) =>
  walk.mark(`tack/trials/${id}/verdict`, walk.typed(`tack/trials/${id}/verdict`) === v ? null : v)
</script>

<template>
  <div class="stack">
    <ul v-if="proposals.length" class="dots">
      <li v-for="p in proposals" :key="p.text">{{ p.text }}</li>
    </ul>
    <details>
      <summary>Reasons for strong or tight settings</summary>
      <div class="grid">
        <WalkField
          v-for="s in words?.settings ?? []"
          :key="s"
          :label="`Why this ${s}`"
          :walk="walk"
          :path="`tack/reasons/${s}`"
        />
      </div>
    </details>
    <details :open="bridles.length > 0">
      <summary>The hole of each strap, per bridle, counted from the buckle</summary>
      <section v-for="[id] in bridles" :key="id" class="stack one">
        <WalkField label="Bridle" :walk="walk" :path="`tack/bridles/${id}/name`" />
        <div class="grid">
          <WalkField
            v-for="hole in (words?.straps ?? []).flatMap((s) => ['near', 'off'].map((side) => ({ strap: s, side })))"
            :key="`${hole.strap} ${hole.side}`"
            :label="`${hole.strap}, ${sideWord(hole.side)}`"
            :walk="walk"
            :path="`tack/bridles/${id}/holes/${hole.strap}/${hole.side}`"
            kind="number"
          />
        </div>
        <div><ElButton @click="walk.mark(`tack/bridles/${id}`, null)">Take this bridle out</ElButton></div>
      </section>
      <ElButton @click="addBridle">Add a bridle</ElButton>
    </details>
    <details :open="trials.length > 0">
      <summary>Trials: one change at a time</summary>
      <section v-for="[id, t] in trials" :key="id" class="stack one">
        <div class="grid">
          <WalkField label="What was changed" :walk="walk" :path="`tack/trials/${id}/changed`" />
          <WalkField label="Minutes" :walk="walk" :path="`tack/trials/${id}/minutes`" kind="number" />
          <WalkField label="What was seen" :walk="walk" :path="`tack/trials/${id}/saw`" />
          <WalkField label="On" :walk="walk" :path="`tack/trials/${id}/on`" kind="date" />
        </div>
        <div class="row">
          <ChipRow
            label="Verdict"
            :choices="choices(words?.verdicts ?? [])"
            :chosen="[t.verdict ?? '']"
            @toggle="verdict(id, $event)"
          />
          <ChipRow
            label="Milder"
            :choices="[{ value: 'milder', text: 'milder than before' }]"
            :chosen="t.milder ? ['milder'] : []"
            @toggle="walk.mark(`tack/trials/${id}/milder`, t.milder ? null : true)"
          />
          <ElButton @click="walk.mark(`tack/trials/${id}`, null)">Take this trial out</ElButton>
        </div>
      </section>
      <ElButton @click="addTrial">Add a trial</ElButton>
    </details>
  </div>
</template>

<style scoped>
summary {
  cursor: pointer;
  font-weight: 600;
  min-height: var(--control);
  display: list-item;
  align-content: center;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(170px, 100%), 1fr));
  gap: var(--gap-3);
}
.one {
  border-left: var(--rule);
  padding-left: var(--gap-3);
  margin-bottom: var(--gap-3);
}
</style>
