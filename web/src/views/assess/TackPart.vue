<script setup lang="ts">
// Reasons for what is strong or tight, the hole of each strap per bridle, and
// trials: one change at a time.
import { v7 } from 'uuid'
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import TypedAnswer from '../../parts/TypedAnswer.vue'
import { sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'

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
        <FieldRow
          v-for="s in words?.settings ?? []"
          :key="s"
          v-slot="f"
          :label="`Why this ${s}`"
          :wrong="walk.wrong(`tack/reasons/${s}`)"
        >
          <TypedAnswer
            :id="f.id"
            kind="text"
            :value="walk.typed(`tack/reasons/${s}`)"
            @put="walk.mark(`tack/reasons/${s}`, $event)"
          />
        </FieldRow>
      </div>
    </details>
    <details :open="bridles.length > 0">
      <summary>The hole of each strap, per bridle, counted from the buckle</summary>
      <section v-for="[id, b] in bridles" :key="id" class="stack one">
        <FieldRow v-slot="f" label="Bridle" :wrong="walk.wrong(`tack/bridles/${id}/name`)">
          <TypedAnswer :id="f.id" kind="text" :value="b.name" @put="walk.mark(`tack/bridles/${id}/name`, $event)" />
        </FieldRow>
        <div class="grid">
          <FieldRow
            v-for="hole in (words?.straps ?? []).flatMap((s) => ['near', 'off'].map((side) => ({ strap: s, side })))"
            :key="`${hole.strap} ${hole.side}`"
            v-slot="f"
            :label="`${hole.strap}, ${sideWord(hole.side)}`"
            :wrong="walk.wrong(`tack/bridles/${id}/holes/${hole.strap}/${hole.side}`)"
          >
            <TypedAnswer
              :id="f.id"
              kind="number"
              :value="walk.typed(`tack/bridles/${id}/holes/${hole.strap}/${hole.side}`)"
              @put="walk.mark(`tack/bridles/${id}/holes/${hole.strap}/${hole.side}`, $event)"
            />
          </FieldRow>
        </div>
        <div><ElButton @click="walk.mark(`tack/bridles/${id}`, null)">Take this bridle out</ElButton></div>
      </section>
      <ElButton @click="addBridle">Add a bridle</ElButton>
    </details>
    <details :open="trials.length > 0">
      <summary>Trials: one change at a time</summary>
      <section v-for="[id, t] in trials" :key="id" class="stack one">
        <div class="grid">
          <FieldRow v-slot="f" label="What was changed" :wrong="walk.wrong(`tack/trials/${id}/changed`)">
            <TypedAnswer :id="f.id" kind="text" :value="t.changed" @put="walk.mark(`tack/trials/${id}/changed`, $event)" />
          </FieldRow>
          <FieldRow v-slot="f" label="Minutes" :wrong="walk.wrong(`tack/trials/${id}/minutes`)">
            <TypedAnswer
              :id="f.id"
              kind="number"
              :value="walk.typed(`tack/trials/${id}/minutes`)"
              @put="walk.mark(`tack/trials/${id}/minutes`, $event)"
            />
          </FieldRow>
          <FieldRow v-slot="f" label="What was seen" :wrong="walk.wrong(`tack/trials/${id}/saw`)">
            <TypedAnswer :id="f.id" kind="text" :value="t.saw" @put="walk.mark(`tack/trials/${id}/saw`, $event)" />
          </FieldRow>
          <FieldRow v-slot="f" label="On" :wrong="walk.wrong(`tack/trials/${id}/on`)">
            <TypedAnswer
              :id="f.id"
              kind="date"
              :value="walk.typed(`tack/trials/${id}/on`)"
              @put="walk.mark(`tack/trials/${id}/on`, $event)"
            />
          </FieldRow>
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
