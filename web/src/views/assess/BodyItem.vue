<script setup lang="ts">
// One body item: its state, and what belongs to that state.
import { v7 } from 'uuid'
import { computed } from 'vue'
import type { Schemas } from '../../api/types'
import { me } from '../../api/me'
import ChipRow from '../../parts/ChipRow.vue'
import { choices } from '../../parts/choices'
import FieldRow from '../../parts/FieldRow.vue'
import { shortDate, sideWord } from '../../words'
import type { Assessing } from '../../cases/useAssessment'
import WalkField from './WalkField.vue'

const { walk, item, state } = defineProps<{ walk: Assessing; item: Schemas['WalkItem']; state: string }>()

const path = computed(() => `body/${item.item}`)
const words = computed(() => walk.data?.words)
const today = computed(() => me.value?.today ?? '')
const checks = computed(() => walk.view?.checks[item.item] ?? [])
const rechecks = computed(() => walk.view?.result.rechecks.filter((r) => r.item === item.item) ?? [])
const field = (name: string) => `${path.value}/${name}`

function set(word: string) {
  walk.mark(field('state'), word === 'not looked at' ? null : word)
  const since = words.value?.dated[word]
  if (since && !walk.typed(field(since))) walk.mark(field(since), today.value)
}

/** The check of today on a side, if one was made. */
function today_check(side: string): [string, string] | undefined {
  const all = (walk.typed(field('checks')) ?? {}) as Record<string, { on?: string; side?: string; answer?: string }>
  const found = Object.entries(all).find(([, c]) => c.on === today.value && c.side === side)
  return found && [found[0], found[1].answer ?? '']
}
function press(side: string, answer: string) {
  const made = today_check(side)
  if (made?.[1] === answer) return walk.mark(field(`checks/${made[0]}`), null)
  walk.mark(field(`checks/${made?.[0] ?? v7()}`), { on: today.value, side, answer })
}
</script>

<template>
  <section class="sheet stack" :aria-label="item.name.text">
    <h3>{{ item.name.text }}</h3>
    <ChipRow :label="`${item.name.text}: state`" :choices="choices(words?.states ?? [])" :chosen="[state]" @toggle="set" />
    <div v-if="item.by_hand" class="stack">
      <FieldRow
        v-for="side in ['near', 'off']"
        :key="side"
        :label="`Pressed with the pads of the fingers, ${sideWord(side)}, today`"
      >
        <ChipRow
          :label="`Pressed, ${sideWord(side)}`"
          :choices="choices(words?.pressings ?? [])"
          :chosen="[today_check(side)?.[1] ?? '']"
          @toggle="press(side, $event)"
        />
      </FieldRow>
    </div>
    <div v-if="state !== 'not looked at'" class="grid">
      <WalkField label="What was seen" :walk="walk" :path="field('note')" />
      <WalkField v-if="state === 'suspect'" label="Suspect since" :walk="walk" :path="field('since')" kind="date" />
      <template v-if="state === 'in treatment'">
        <WalkField label="Treatment begun" :walk="walk" :path="field('begun')" kind="date" />
        <WalkField label="Its length, days" :walk="walk" :path="field('days')" kind="number" />
      </template>
      <template v-if="state === 'cleared'">
        <WalkField label="Cleared by" :walk="walk" :path="field('cleared_by')" />
        <WalkField label="On" :walk="walk" :path="field('cleared_on')" kind="date" />
      </template>
      <template v-if="item.item === 'hind leg' && ['suspect', 'in treatment'].includes(state)">
        <WalkField label="A vet has seen it on" :walk="walk" :path="field('vet_saw')" kind="date" />
        <FieldRow label="It has locked">
          <ChipRow
            label="It has locked"
            :choices="[{ value: 'yes', text: 'yes' }]"
            :chosen="walk.typed(field('locked')) ? ['yes'] : []"
            @toggle="walk.mark(field('locked'), walk.typed(field('locked')) ? null : true)"
          />
        </FieldRow>
      </template>
    </div>
    <div v-if="checks.length" class="scroll">
      <table>
        <caption>
          Checks by treatment day
        </caption>
        <thead>
          <tr>
            <th scope="col">Side</th>
            <th v-for="d in checks" :key="d.on" scope="col">
              {{ d.day >= 0 ? `day ${d.day}` : 'before' }}<small>{{ shortDate(d.on) }}</small>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="side in ['near', 'off']" :key="side">
            <th scope="row">{{ sideWord(side) }}</th>
            <td v-for="d in checks" :key="d.on">{{ d.found.find((c) => c.side === side)?.answer || 'not checked' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <ul v-if="rechecks.length" class="dots">
      <li v-for="r in rechecks" :key="r.day">{{ r.reads.text }}</li>
    </ul>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(200px, 100%), 1fr));
  gap: var(--gap-3);
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 600;
}
th,
td {
  text-align: left;
  padding: var(--gap-1) var(--gap-3) var(--gap-1) 0;
  border-top: var(--line);
}
th small {
  display: block;
  font-weight: 400;
}
</style>
